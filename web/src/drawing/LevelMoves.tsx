import type { LevelMark, PanelView } from "../api/client";
import { tone } from "../app/theme";
import { middleOf, type Measures } from "./measures";
import { PostPreview } from "./PostPreview";

/** Which breakers go where on the post, as arrows from their space to the new one. */
export function LevelMoves({ view, marks }: { view: PanelView; marks: readonly LevelMark[] }) {
  const said = marks.map((mark) => mark.words).join("; ");
  return (
    <PostPreview view={view} label={`${view.panel.name}: ${said}`} least>
      {(m) => marks.map((mark, at) => <Arrow key={mark.breaker} view={view} mark={mark} m={m} lane={at} />)}
    </PostPreview>
  );
}

interface ArrowProps {
  view: PanelView;
  mark: LevelMark;
  m: Measures;
  lane: number;
}

function Arrow({ view, mark, m, lane }: ArrowProps) {
  const breaker = view.breakers.find((one) => one.breaker === mark.breaker);
  const part = breaker?.parts[0];
  const space = view.spaces.find((one) => one.space === mark.to[0]);
  if (breaker === undefined || part === undefined || space === undefined) return null;
  const inner = (side: "left" | "right") => (side === "left" ? m.postLeft : m.postLeft + m.postWidth);
  const out = (side: "left" | "right") => (side === "left" ? -1 : 1);
  const from = { x: inner(breaker.side) - out(breaker.side) * 5, y: middleOf(part, m) };
  const to = { x: inner(space.side) + out(space.side) * 3, y: m.top + (space.row + 0.5) * m.row };
  // Each in a lane of its own along the post, so that arrows do not lie on one another.
  const along = m.postLeft + (m.postWidth * (1 + (lane % 4))) / 5;
  const back = -out(space.side);
  return (
    <g data-move={mark.number} stroke={tone("blaze")} fill="none" strokeWidth="4">
      <circle cx={from.x} cy={from.y} r="5" fill={tone("blaze")} stroke="none" />
      <path d={`M${from.x} ${from.y} H${along} V${to.y} H${to.x + back * 10}`} strokeLinejoin="round" />
      <path d={`M${to.x} ${to.y} l${back * 14} -8 v16 z`} fill={tone("blaze")} stroke="none" />
    </g>
  );
}
