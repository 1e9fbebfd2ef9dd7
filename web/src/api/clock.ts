/** How far apart they were last, kept on this device: a page that is loaded again while the program does not answer goes by it. */
const APART = "wayfinder-clock-apart";

function keptApart(): number {
  try {
    const kept = Number(localStorage.getItem(APART));
    return Number.isFinite(kept) ? kept : 0;
  } catch {
    return 0; // A browser without storage goes by its own clock.
  }
}

/**
 * The program's clock, as far as this device can tell: what people write on two phones is put in order by it. Answers
 * carry the time to the second; less than two seconds apart counts as the same.
 */
let apart = keptApart();
/** The program's time that was heard last, and how long this page had been open then: that goes on whatever clock is set. */
let last: { time: number; open: number } | undefined;
let setBack = false;
/** The program's clock went back by more than that: it was set. An answer may come minutes late where the network is poor. */
const SET_MS = 300_000;

export function heardTime(date: string | null): void {
  const time = date === null ? NaN : Date.parse(date);
  if (Number.isNaN(time)) return;
  const open = performance.now();
  if (last !== undefined && time < last.time + (open - last.open) - SET_MS) setBack = true;
  last = { time, open };
  const by = time + 500 - Date.now();
  const before = apart;
  apart = Math.abs(by) < 2000 ? 0 : by;
  if (Math.abs(apart - before) < 1000) return;
  try {
    localStorage.setItem(APART, String(apart));
  } catch {
    // As above.
  }
}

export const now = (): number => Date.now() + apart;

/** Whether the program's clock was set back while this page was open. */
export const wasSetBack = (): boolean => setBack;
