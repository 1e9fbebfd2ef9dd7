import type { Blade, HomeOverview, OpenSpace } from "../api/client";

/** Which blade or open space is meant: `b:` and the breaker, or `s:` and the space with its half. */
export type PostPlace = string;
export const placeOfBlade = (blade: Blade): PostPlace => `b:${blade.breaker}`;
export const placeOfOpen = (open: OpenSpace): PostPlace => `s:${open.number}`;

/** Every blade of the home, whatever panel it sits in. */
export const bladesOf = (home: HomeOverview): Blade[] => home.posts.flatMap((post) => post.blades);

export const bladeOf = (home: HomeOverview, breaker: string): Blade | undefined =>
  bladesOf(home).find((blade) => blade.breaker === breaker);
