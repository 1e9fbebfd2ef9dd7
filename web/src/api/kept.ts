/**
 * Answers that were heard before and stand in for ones that the program could not be asked for now. The service worker gives
 * them; each carries when it was heard, in milliseconds since 1970.
 */
export const KEPT_AT = "x-wayfinder-kept";

/** When the oldest of what is shown in place of an answer was heard; null where the program answers. */
let since: number | null = null;
const listeners = new Set<() => void>();

/** Takes note of an answer: whether it is one of before, or the program has answered again. */
export function heard(response: Response): void {
  const kept = response.headers.get(KEPT_AT);
  const before = since;
  since = kept === null ? null : Math.min(Number(kept), before ?? Infinity);
  if (since !== before) for (const listener of listeners) listener();
}

export const keptSince = (): number | null => since;

export function onKept(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
