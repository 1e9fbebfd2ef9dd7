import type { BreakerView, HomeOverview, OpenSpace } from "../api/client";

/** Which blade or open space is meant: `b:` and the breaker, or `s:` and the space with its half. */
export type PostPlace = string;
export const placeOfBlade = (breaker: BreakerView): PostPlace => `b:${breaker.breaker}`;
export const placeOfOpen = (open: OpenSpace): PostPlace => `s:${open.number}`;

/** Every breaker of the home, whatever panel it sits in. */
export const breakersOf = (home: HomeOverview): BreakerView[] => home.panels.flatMap((view) => view.breakers);

export const breakerOf = (home: HomeOverview, id: string): BreakerView | undefined =>
  breakersOf(home).find((breaker) => breaker.breaker === id);
