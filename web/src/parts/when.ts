/** A moment as this device says it. */
export const when = (ms: number): string =>
  new Date(ms).toLocaleString(undefined, { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" });
