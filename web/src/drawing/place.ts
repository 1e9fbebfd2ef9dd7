import type { Blade, OpenSpace } from "../api/client";

/** Which blade or open space is meant: `b:` and the breaker, or `s:` and the space with its half. */
export type PostPlace = string;
export const placeOfBlade = (blade: Blade): PostPlace => `b:${blade.breaker}`;
export const placeOfOpen = (open: OpenSpace): PostPlace => `s:${open.space}${halfMark(open)}`;
const halfMark = (open: OpenSpace) => (open.half === "upper" ? "a" : open.half === "lower" ? "b" : "");
export const numberOfOpen = (open: OpenSpace): string => `${open.space}${halfMark(open)}`;
