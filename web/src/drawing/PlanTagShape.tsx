import type { PlanPoint } from "../api/client";
import { tone, type Tones } from "../app/theme";
import { tagFont } from "./measures";

type Tag = PlanPoint["tag"];

const COLORS: Record<Tag["kind"], [keyof Tones, keyof Tones]> = {
  proven: ["moss", "onMoss"],
  likely: ["ochre", "onOchre"],
  contradictory: ["danger", "paper"],
  out: ["dark", "onDark"],
  open: ["slate", "onSlate"],
};

/** A circuit's number beside its point: the blade of the fingerpost, pointing away from the symbol. */
export function PlanTagShape({ tag, height }: { tag: Tag; height: number }) {
  const [fill, ink] = COLORS[tag.kind];
  const side = tag.left ? -1 : 1;
  const [w, h] = [tag.width / 2, height / 2];
  const points = [
    [-w * side, -h],
    [(w - h * 0.7) * side, -h],
    [w * side, 0],
    [(w - h * 0.7) * side, h],
    [-w * side, h],
  ];
  return (
    <g transform={`translate(${tag.at.x} ${tag.at.y})`} data-tag={tag.kind} aria-hidden="true">
      <polygon
        points={points.map((p) => p.join(",")).join(" ")}
        fill={tone(fill)}
        stroke={tag.kind === "open" ? tone("card") : tone(fill)}
        strokeWidth={tag.kind === "open" ? 14 : 0}
        strokeDasharray={tag.kind === "open" ? "50 40" : undefined}
      />
      <text
        x={-h * 0.32 * side}
        y={height * 0.23}
        textAnchor="middle"
        fontSize={tagFont(height)}
        fontFamily="Overpass Variable"
        fontWeight={700}
        fill={tone(ink)}
      >
        {tag.text}
      </text>
    </g>
  );
}
