import type { BreakerView, PanelView } from "../api/client";
import { tone } from "../app/theme";
import { middleOf, outline, type Measures } from "./measures";

const HEAD = "Overpass Variable";

/** Legs by pattern: A solid, B stripes, C dots. */
export function Patterns() {
  return (
    <defs>
      <pattern id="leg-B" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="8" height="8" fill="#20594b" />
        <rect width="3" height="8" fill="#4d8374" />
      </pattern>
      <pattern id="leg-C" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="#20594b" />
        <circle cx="4" cy="4" r="1.7" fill="#86b3a6" />
      </pattern>
    </defs>
  );
}

/** The bus as a post with the leg of each row; a row that was read with a meter is underlined. */
export function Mast({ view, m }: { view: PanelView; m: Measures }) {
  const middle = m.postLeft + m.postWidth / 2;
  const main = view.panel.main;
  const read = new Set(view.panel.legs_read.map((row) => row.row));
  return (
    <g aria-hidden="true">
      <path
        d={`M${m.postLeft} ${m.top} V26 L${middle} 4 L${m.postLeft + m.postWidth} 26 V${m.height - 6} H${m.postLeft} Z`}
        fill="#20594b"
      />
      {main != null && (
        <text x={middle} y={30} textAnchor="middle" fill="#fff" fontFamily={HEAD} fontWeight="700" fontSize="13">
          {main}
        </text>
      )}
      {view.rows.map((row) => {
        const y = m.top + row.row * m.row;
        return (
          <g key={row.row}>
            {row.leg !== "A" && (
              <rect x={m.postLeft} y={y} width={m.postWidth} height={m.row} fill={`url(#leg-${row.leg})`} />
            )}
            <rect x={middle - 9} y={y + m.row / 2 - 10} width="18" height="20" rx="3" fill="#20594b" />
            <text
              x={middle}
              y={y + m.row / 2 + 5}
              textAnchor="middle"
              fill="#fff"
              fontFamily={HEAD}
              fontWeight="700"
              fontSize="14"
            >
              {row.leg}
            </text>
            {read.has(row.row) && <rect x={middle - 6} y={y + m.row / 2 + 7} width="12" height="2" fill="#fff" />}
          </g>
        );
      })}
    </g>
  );
}

/** The handles on the post: one for each pole, with the bar that ties them. */
export function Handles({ breaker, m }: { breaker: BreakerView; m: Measures }) {
  const out = breaker.side === "left" ? -1 : 1;
  const inner = breaker.side === "left" ? m.postLeft : m.postLeft + m.postWidth;
  // The outer handles of a quad reach past the inner ones.
  const x = inner - out * (breaker.parts.length > 1 ? 15 : 8);
  const ys = breaker.poles.map((pole) => middleOf(pole, m));
  const [from, to] = [ys[0] ?? 0, ys[ys.length - 1] ?? 0];
  return (
    <g aria-hidden="true" pointerEvents="none">
      {ys.length > 1 && (
        <line
          x1={x}
          y1={from}
          x2={x}
          y2={to}
          stroke="#fff"
          strokeWidth={breaker.details.tie === "handle" ? 2 : 4.5}
          strokeDasharray={breaker.details.tie === "handle" ? "3 2" : undefined}
        />
      )}
      {breaker.poles.map((pole, n) => (
        <Stud key={pole.top} breaker={breaker} x={x} y={ys[n] ?? 0} small={pole.height === 1} />
      ))}
      {breaker.parts.length > 1 &&
        breaker.poles.map((pole, n) => (
          <line key={pole.top} x1={inner} y1={ys[n]} x2={x} y2={ys[n]} stroke="#fff" strokeWidth="1.6" />
        ))}
    </g>
  );
}

/** Where a handle stands. */
function Stud({ breaker, x, y, small }: { breaker: BreakerView; x: number; y: number; small: boolean }) {
  const r = small ? 3.6 : 5.2;
  if (breaker.state === "tripped") {
    const d = small ? 3.5 : 5;
    return (
      <path
        d={`M${x - d} ${y - d} l${2 * d} ${2 * d} m0 ${-2 * d} l${-2 * d} ${2 * d}`}
        stroke="#fff"
        strokeWidth="3"
        fill="none"
      />
    );
  }
  return breaker.state === "on" ? (
    <circle cx={x} cy={y} r={r} fill="#fff" />
  ) : (
    <circle cx={x} cy={y} r={r} fill="#20594b" stroke="#f08a55" strokeWidth="3" />
  );
}

/** A clamp along the inner end of handles that share one housing: the two of a tandem, the four of a quad. */
export function Housings({ view, m }: { view: PanelView; m: Measures }) {
  const spans = new Map<string, { side: BreakerView["side"]; top: number; height: number }>();
  for (const breaker of view.breakers) {
    const top = Math.min(...breaker.poles.map((pole) => pole.top));
    if (breaker.housing === "tandem") {
      const row = top - (top % 2);
      spans.set(`${breaker.side} ${row}`, { side: breaker.side, top: row, height: 2 });
    } else if (breaker.housing === "quad" && breaker.poles.length > 1) {
      const row = top - (top % 2);
      spans.set(`${breaker.side} ${row}`, { side: breaker.side, top: row, height: 4 });
    }
  }
  return (
    <g aria-hidden="true" pointerEvents="none">
      {[...spans.entries()].map(([key, span]) => {
        const f = outline(span, span.side, m);
        const x = f.inner + f.out * 3;
        return (
          <path
            key={key}
            d={`M${x + f.out * 5} ${f.top + 2} H${x} V${f.bottom - 2} H${x + f.out * 5}`}
            fill="none"
            stroke={tone("pine")}
            strokeWidth="3"
          />
        );
      })}
    </g>
  );
}

/** Brackets beyond the tips between circuits that share one neutral. */
export function SharedNeutrals({ view, m }: { view: PanelView; m: Measures }) {
  const groups = new Map<string, BreakerView[]>();
  for (const breaker of view.breakers) {
    if (breaker.shares_neutral_with.length > 0) {
      const key = [...breaker.shares_neutral_with].sort().join(" ");
      groups.set(key, [...(groups.get(key) ?? []), breaker]);
    }
  }
  return (
    <g aria-hidden="true" pointerEvents="none">
      {[...groups.entries()].flatMap(([key, breakers]) =>
        (["left", "right"] as const).map((side) => {
          const ys = breakers.filter((b) => b.side === side).flatMap((b) => b.poles.map((pole) => middleOf(pole, m)));
          if (ys.length === 0) return null;
          const f = outline({ top: 0, height: 2 }, side, m);
          const tip = f.inner + f.out * m.blade;
          const x = tip + f.out * (m.narrow ? 3 : 4);
          const [from, to] = [Math.min(...ys), Math.max(...ys)];
          const at = ys.length > 1 ? (from + to) / 2 : from;
          const disc = x + f.out * (m.narrow ? 8 : 11);
          return (
            <g key={`${key} ${side}`} data-shared-neutral={key}>
              {ys.length > 1 && (
                <path
                  d={`M${tip - f.out * 3} ${from} H${disc} V${to} H${tip - f.out * 3}`}
                  fill="none"
                  stroke={tone("ink")}
                  strokeWidth="1.8"
                />
              )}
              <circle cx={disc} cy={at} r="9" fill={tone("paper")} stroke={tone("ink")} strokeWidth="1.8" />
              <text
                x={disc}
                y={at + 4.6}
                textAnchor="middle"
                fontFamily={HEAD}
                fontWeight="800"
                fontSize="13"
                fill={tone("ink")}
              >
                N
              </text>
            </g>
          );
        }),
      )}
    </g>
  );
}
