import { tone } from "../app/theme";

const HIGH = 110;
const EVERY_SIX = [0, 6, 12, 18];

/** The mean day: what is taken in each hour. */
export function DemandDay({ hours, narrow = false }: { hours: readonly number[]; narrow?: boolean }) {
  const step = narrow ? 15 : 26;
  const most = Math.max(1, ...hours);
  const busiest = hours.indexOf(Math.max(...hours));
  return (
    <svg
      viewBox={`-2 -20 ${24 * step + 4} ${HIGH + 44}`}
      width="100%"
      role="img"
      aria-label={`The mean day. Most from ${busiest} to ${busiest + 1} o'clock: ${(most / 1000).toFixed(2)} kilowatts.`}
      style={{ maxWidth: 640, display: "block" }}
    >
      {hours.map((watts, hour) => (
        <rect
          key={hour}
          x={hour * step + 2}
          width={step - 4}
          y={HIGH - (HIGH * watts) / most}
          height={(HIGH * watts) / most}
          fill={hour === busiest ? tone("pine") : tone("rail")}
          stroke={tone("pine")}
        />
      ))}
      <text x={busiest * step + step / 2} y={-6} fontSize={14} fontWeight={700} textAnchor="middle" fill={tone("ink")}>
        {(most / 1000).toFixed(2)} kW
      </text>
      <line x1={0} x2={24 * step} y1={HIGH} y2={HIGH} stroke={tone("ink")} strokeWidth={1.5} />
      {EVERY_SIX.map((hour) => (
        <text key={hour} x={hour * step + 2} y={HIGH + 17} fontSize={13} fill={tone("soft")}>
          {hour} h
        </text>
      ))}
    </svg>
  );
}
