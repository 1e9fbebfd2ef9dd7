/** The kind of a point after its name, unless the name says it already: "smoke alarm". */
export const kindAfter = (name: string, kind: string): string => (name.toLowerCase().includes(kind) ? "" : kind);

/** A name as a heading: `ground floor` becomes `Ground floor`. */
export const sentence = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1);

/** `leg A`, `legs A and B`. */
export const legsInWords = (legs: readonly string[]): string =>
  `${legs.length === 1 ? "leg" : "legs"} ${[...legs].sort().join(" and ")}`;

/** `1 room`, `3 rooms`. */
export const counted = (count: number, one: string): string => (count === 1 ? `1 ${one}` : `${count} ${one}s`);

/** `16.3`: amperes as they stand in a column. */
export const amps = (value: number): string => value.toFixed(1);
