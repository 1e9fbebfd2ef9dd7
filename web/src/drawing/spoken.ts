import type { BreakerView, Place } from "../api/client";
import { legsInWords } from "../parts/words";

/** What the place under the pointer or the arrows means. */
export function said(place: Place): string {
  if (place.here) return `${place.number}: here it sits now.`;
  if (place.why_not != null) return `Not ${place.number}. ${place.why_not}`;
  return `${place.number}: ${legsInWords(place.legs)}, ${place.volts} V ${place.legs.length > 1 ? "between its poles" : "to neutral"}.`;
}

const PROTECTED = { standard: "", gfci: ", GFCI", afci: ", AFCI", dual_function: ", dual function" } as const;

/** A blade's name, spoken. */
export function spoken(breaker: BreakerView, worry: "danger" | "fault" | null): string {
  const [fed] = breaker.feeds;
  const what = fed
    ? `feeds ${fed.name}`
    : breaker.wording || (breaker.claim ? `not proven, old card: ${breaker.claim}` : "not proven");
  const shared = breaker.shares_neutral_with.length > 0 ? ", shares a neutral" : "";
  const housing = breaker.housing === "full" ? "" : `, ${breaker.housing}`;
  const grave = worry === null ? "" : worry === "danger" ? ", danger found" : ", fault found";
  return `Breaker ${breaker.number}, ${breaker.amps} amps, ${legsInWords(breaker.legs)}, ${breaker.state}${PROTECTED[breaker.protection]}${housing}, ${what}${shared}${grave}`;
}
