import { tone } from "../app/theme";
import { outline, type Measures } from "./measures";
import type { Spot } from "./spots";

/** The places drawn over the post while a breaker is moved, and the one it would go to. */
export function MovingLayer({ spots, target, m }: { spots: Spot[]; target: Spot | undefined; m: Measures }) {
  return (
    <g aria-hidden="true" pointerEvents="none">
      {spots
        .filter((spot) => spot.place.why_not == null && spot.height > 1)
        .map((spot) => (
          <path
            key={spot.place.number}
            d={outline(spot, spot.side, m).path}
            fill="none"
            stroke={tone("pine")}
            strokeWidth="2"
            strokeDasharray="2 4"
          />
        ))}
      {target && (
        <path
          d={outline(target, target.side, m).path}
          fill={target.place.why_not == null ? tone("blaze") : tone("danger")}
          fillOpacity="0.22"
          stroke={target.place.why_not == null ? tone("blaze") : tone("danger")}
          strokeWidth="3.5"
        />
      )}
    </g>
  );
}
