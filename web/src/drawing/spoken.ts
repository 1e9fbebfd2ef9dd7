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
export function spoken(blade: BreakerView, worry: "danger" | "fault" | null): string {
  const [fed] = blade.feeds;
  const what = fed
    ? `feeds ${fed.name}`
    : blade.wording || (blade.claim ? `not proven, old card: ${blade.claim}` : "not proven");
  const shared = blade.shares_neutral_with.length > 0 ? ", shares a neutral" : "";
  const housing = blade.housing === "full" ? "" : `, ${blade.housing}`;
  const grave = worry === null ? "" : worry === "danger" ? ", danger found" : ", fault found";
  return `Breaker ${blade.number}, ${blade.amps} amps, ${legsInWords(blade.legs)}, ${blade.state}${PROTECTED[blade.protection]}${housing}, ${what}${shared}${grave}`;
}
