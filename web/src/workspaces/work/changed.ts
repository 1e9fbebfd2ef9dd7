import type { BreakerView, PanelView } from "../../api/client";

/** What stands out in the panel before and after: breakers that go or move, and those that are new. */
export function changed(now: PanelView, after: PanelView) {
  const were = new Map(now.breakers.map((one) => [one.breaker, one]));
  const are = new Map(after.breakers.map((one) => [one.breaker, one]));
  const same = (one: BreakerView, other: BreakerView) =>
    one.number === other.number && one.amps === other.amps && one.protection === other.protection;
  const gone = now.breakers.filter((one) => {
    const then = are.get(one.breaker);
    return then === undefined || !same(one, then);
  });
  const fresh = after.breakers.filter((one) => !were.has(one.breaker));
  const moved = after.breakers.filter((one) => {
    const before = were.get(one.breaker);
    return before !== undefined && !same(one, before);
  });
  const numbers = (these: BreakerView[]) => these.map((one) => one.number).join(", ");
  return {
    gone: new Set(gone.map((one) => one.breaker)),
    moved: new Set(moved.map((one) => one.breaker)),
    fresh: new Set(fresh.map((one) => one.breaker)),
    before: gone.length > 0 ? `${numbers(gone)} will change` : "",
    after: [fresh.length > 0 ? `new: ${numbers(fresh)}` : "", moved.length > 0 ? `changed: ${numbers(moved)}` : ""]
      .filter((said) => said !== "")
      .join("; "),
  };
}
