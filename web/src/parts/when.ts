/** A moment as this device says it. */
export const when = (ms: number): string =>
  new Date(ms).toLocaleString(undefined, { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });

/** The day of a moment. */
export const dateOf = (ms: number): string =>
  new Date(ms).toLocaleDateString(undefined, { day: "numeric", month: "short", year: "numeric" });
