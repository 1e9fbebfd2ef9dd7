import { useEffect, useState } from "react";
import type { DarkClock } from "../api/client";
import { now as clock } from "../api/clock";

/** From here on somebody should be on the way to the panel. */
const SOON_S = 120;

export interface Clocks {
  running: DarkClock[];
  /** Run out, or about to. */
  over: DarkClock[];
  /** Seconds left; below zero when it has run out. */
  left: (clock: DarkClock) => number;
}

/** What may be without power only so long, by the clock of this device. */
export function useClocks({ clocks }: { clocks: DarkClock[] }): Clocks {
  const [now, setNow] = useState(clock);
  const any = clocks.length > 0;
  useEffect(() => {
    if (!any) return;
    const timer = setInterval(() => setNow(clock()), 1000);
    return () => clearInterval(timer);
  }, [any]);
  const left = (clock: DarkClock) => Math.ceil((clock.until - now) / 1000);
  const over = clocks.filter((clock) => left(clock) <= SOON_S);
  return {
    running: clocks.filter((clock) => left(clock) > SOON_S),
    over,
    left,
  };
}
