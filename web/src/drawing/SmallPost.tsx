import Box from "@mui/material/Box";
import type { LetterMark, PanelView, Part } from "../api/client";
import { tone } from "../app/theme";

interface Props {
  view: PanelView;
  /** The breakers that stand out: what is moved, and what is new. */
  moved?: ReadonlySet<string>;
  /** What is off, dangerous, overloaded or not proven. */
  marks?: ReadonlyMap<string, LetterMark>;
  fresh?: ReadonlySet<string>;
  /** What it shows, spoken. */
  label: string;
}

const NONE: ReadonlySet<string> = new Set();
const POST = 26;
const BLADE = 58;
const TIP = 6;
const TOP = 12;
const WIDTH = 2 * BLADE + POST + 4;

/** A panel as a small fingerpost: numbers alone, and what changes. */
export function SmallPost({ view, moved = NONE, fresh = NONE, marks, label }: Props) {
  const halves = [...view.breakers.flatMap((one) => one.parts), ...view.open.map((one) => one.part)].some(
    (part) => part.height === 1,
  );
  const row = halves ? 26 : 18;
  const left = BLADE + 2;
  const height = TOP + view.rows.length * row + 6;
  const box = (part: Part) => ({ y: TOP + (part.top * row) / 2, h: (part.height * row) / 2 });
  const path = (part: Part, side: "left" | "right") => {
    const { y, h } = box(part);
    const inner = side === "left" ? left : left + POST;
    const out = side === "left" ? -1 : 1;
    const shoulder = inner + out * (BLADE - TIP);
    return `M${inner} ${y + 1} H${shoulder} L${inner + out * BLADE} ${y + h / 2} L${shoulder} ${y + h - 1} H${inner} Z`;
  };
  const number = (part: Part, side: "left" | "right", text: string, fill: string, weight: number) => {
    const { y, h } = box(part);
    return (
      <text
        x={side === "left" ? left - 6 : left + POST + 6}
        y={y + h / 2 + 4}
        textAnchor={side === "left" ? "end" : "start"}
        fontFamily="Overpass Variable"
        fontWeight={weight}
        fontSize="12"
        fill={fill}
      >
        {text}
      </text>
    );
  };
  /** Behind the tip of a blade: what it carries is more than it may. */
  const end = (part: Part, side: "left" | "right") => {
    const { y, h } = box(part);
    const out = side === "left" ? -1 : 1;
    const tip = (side === "left" ? left : left + POST) + out * BLADE;
    return `M${tip - out * (TIP + 5)} ${y + 2} H${tip - out * TIP} L${tip - out} ${y + h / 2} L${tip - out * TIP} ${y + h - 2} H${tip - out * (TIP + 5)} Z`;
  };
  const beyond = (part: Part, side: "left" | "right") => {
    const { y, h } = box(part);
    return { x: side === "left" ? left - BLADE + 18 : left + POST + BLADE - 18, y: y + h / 2 };
  };
  return (
    <Box component="figure" sx={{ m: 0, flex: "none" }}>
      <svg width={WIDTH} height={height} viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={label}>
        <path
          d={`M${left} ${TOP} L${left + POST / 2} 1 L${left + POST} ${TOP} V${height - 2} H${left} Z`}
          fill={tone("bar")}
        />
        {view.rows.map((one) => (
          <text
            key={one.row}
            x={left + POST / 2}
            y={TOP + (one.row + 0.5) * row + 4}
            textAnchor="middle"
            fontFamily="Overpass Variable"
            fontSize="12"
            fill="#fff"
          >
            {one.leg}
          </text>
        ))}
        {view.open.map((open) => (
          <g key={open.number}>
            <path d={path(open.part, open.side)} fill="none" stroke={tone("soft")} strokeDasharray="3 3" />
            {number(open.part, open.side, open.number, tone("soft"), 400)}
          </g>
        ))}
        {view.breakers.map((breaker) => {
          const isNew = fresh.has(breaker.breaker);
          const stands = moved.has(breaker.breaker);
          const mark = marks?.get(breaker.breaker);
          const outline = mark?.off
            ? tone("blaze")
            : stands
              ? tone("ink")
              : mark?.not_proven
                ? tone("soft")
                : tone("rule");
          return breaker.parts.map((part, n) => (
            <g key={`${breaker.breaker} ${part.top}`} data-changed={isNew ? "new" : stands ? "moved" : undefined}>
              <path
                d={path(part, breaker.side)}
                fill={isNew ? tone("pine") : tone("card")}
                stroke={isNew ? tone("pine") : outline}
                strokeWidth={stands || mark?.off ? 2.5 : 1.2}
                strokeDasharray={mark?.not_proven && !mark.off ? "3 3" : undefined}
              />
              {n === 0 && mark?.overloaded && <path d={end(part, breaker.side)} fill={tone("ink")} />}
              {n === 0 && mark?.danger && <Danger {...beyond(part, breaker.side)} />}
              {n === 0 &&
                number(
                  part,
                  breaker.side,
                  breaker.number,
                  isNew ? tone("paper") : tone("ink"),
                  stands || isNew ? 800 : 500,
                )}
            </g>
          ));
        })}
      </svg>
    </Box>
  );
}

/** A danger found at a breaker. */
function Danger({ x, y }: { x: number; y: number }) {
  return (
    <g>
      <path d={`M${x} ${y - 8} L${x + 8} ${y} L${x} ${y + 8} L${x - 8} ${y} Z`} fill="#a3151c" />
      <text
        x={x}
        y={y + 4}
        textAnchor="middle"
        fontFamily="Overpass Variable"
        fontWeight="800"
        fontSize="12"
        fill="#fff"
      >
        !
      </text>
    </g>
  );
}
