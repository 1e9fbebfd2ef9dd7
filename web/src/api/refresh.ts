import type { QueryClient } from "@tanstack/react-query";

/** For each home the last sequence that was asked for anew, and when that is done. */
const asked = new Map<string, { seq: number; done: Promise<void> }>();

/**
 * Asks again for what the line `seq` may have changed. The acknowledgement of a line and the stream both tell of it;
 * it is asked for once.
 */
export function refresh(client: QueryClient, home: string, seq: number): Promise<void> {
  const before = asked.get(home);
  if (before?.seq === seq) return before.done;
  void client.invalidateQueries({ queryKey: ["homes"] });
  const done = client.invalidateQueries({ queryKey: ["home", home] });
  asked.set(home, { seq, done });
  return done;
}

/** After the connection was lost any answer may be missing: the next line is asked for in any case. */
export function mayHaveMissed(home: string): void {
  asked.delete(home);
}
