import type { BreakerView, HomeOverview, OpenSpace } from "../api/client";

/** Which blade or open space is meant: `b:` and the breaker, or `s:` and the space with its half. */
export type PostPlace = string;
export const placeOfBlade = (blade: BreakerView): PostPlace => `b:${blade.breaker}`;
export const placeOfOpen = (open: OpenSpace): PostPlace => `s:${open.number}`;

/** Every blade of the home, whatever panel it sits in. */
export const breakersOf = (home: HomeOverview): BreakerView[] => home.panels.flatMap((post) => post.breakers);

export const breakerOf = (home: HomeOverview, breaker: string): BreakerView | undefined =>
  breakersOf(home).find((blade) => blade.breaker === breaker);
