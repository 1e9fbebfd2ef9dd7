import type { DemandSaid } from "../api/client";
import { tone } from "../app/theme";

const HIGH = 150;

/** The year day by day: a line for the highest demand of each day, the highest of all told apart by a flag. */
export function DemandYear({ said, narrow = false }: { said: DemandSaid; narrow?: boolean }) {
  const width = narrow ? 366 : 732;
  const { daily, peak, peak_at } = said.demand;
  const step = width / daily.length;
  const high = (watts: number) => (HIGH * watts) / peak;
  const at = said.peak_day * step + step / 2;
  const flagRight = at < width - 110;
  return (
    <svg
      viewBox={`-2 -26 ${width + 4} ${HIGH + 50}`}
      width="100%"
      role="img"
      aria-label={`The highest demand of each day. ${said.title}.`}
      style={{ maxWidth: 900, display: "block" }}
    >
      {said.months.map((month) => (
        <g key={month.day}>
          <line x1={month.day * step} x2={month.day * step} y1={0} y2={HIGH + 6} stroke={tone("rule")} />
          {month.day * step < width - 28 && (
            <text x={month.day * step + 3} y={HIGH + 19} fontSize={13} fill={tone("soft")}>
              {narrow ? month.name.slice(0, 1) : month.name}
            </text>
          )}
        </g>
      ))}
      {daily.map((watts, day) =>
        watts == null ? null : (
          <line
            key={day}
            x1={day * step + step / 2}
            x2={day * step + step / 2}
            y1={HIGH}
            y2={HIGH - Math.max(1, high(watts))}
            stroke={tone("pine")}
            strokeWidth={Math.max(1, Math.min(12, step * 0.7))}
          />
        ),
      )}
      <line x1={0} x2={width} y1={HIGH} y2={HIGH} stroke={tone("ink")} strokeWidth={1.5} />
      <line x1={at} x2={at} y1={HIGH} y2={-14} stroke={tone("ink")} strokeWidth={2} />
      <path d={`M${at},-24 h${flagRight ? 12 : -12} v12 h${flagRight ? -12 : 12} z`} fill={tone("ink")} />
      <text
        x={flagRight ? at + 17 : at - 17}
        y={-13}
        fontSize={14}
        fontWeight={700}
        textAnchor={flagRight ? "start" : "end"}
        fill={tone("ink")}
      >
        {(peak / 1000).toFixed(2)} kW, {peak_at.slice(11)}
      </text>
    </svg>
  );
}
