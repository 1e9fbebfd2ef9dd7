import type { Place, PanelView } from "../api/client";
import type { Measures } from "./measures";

/** A place with where it is drawn. */
export interface Spot {
  place: Place;
  side: "left" | "right";
  top: number;
  height: number;
}

/** Where each place is on the post: by the rows of its spaces. */
export function spotsOf(view: PanelView, places: Place[]): Spot[] {
  const rows = new Map<number, { side: "left" | "right"; row: number }>();
  for (const { side, row, space } of view.spaces) rows.set(space, { side, row });
  return places.flatMap((place) => {
    const halves = place.at.map((slot) => {
      const at = rows.get(parseInt(slot, 10));
      const lower = slot.endsWith("b");
      const whole = !lower && !slot.endsWith("a");
      return at && { side: at.side, top: at.row * 2 + (lower ? 1 : 0), bottom: at.row * 2 + (whole || lower ? 2 : 1) };
    });
    const known = halves.filter((half) => half !== undefined);
    const [first] = known;
    if (!first || known.length !== halves.length) return [];
    const top = Math.min(...known.map((half) => half.top));
    const bottom = Math.max(...known.map((half) => half.bottom));
    return [{ place, side: first.side, top, height: bottom - top }];
  });
}

/** The spot under a point of the drawing: of several, the one that is nearest to its middle and smallest. */
export function spotAt(spots: Spot[], x: number, y: number, m: Measures): Spot | undefined {
  const side = x < m.postLeft + m.postWidth / 2 ? "left" : "right";
  const halfRow = (y - m.top) / (m.row / 2);
  const away = (spot: Spot) => Math.abs(spot.top + spot.height / 2 - halfRow) + (spot.height === 1 ? 0.3 : 0);
  return spots.filter((spot) => spot.side === side).sort((a, b) => away(a) - away(b))[0];
}
