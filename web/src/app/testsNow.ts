import type { HomeOverview } from "../api/client";
import { now } from "../api/clock";

/** How many devices wait for a press of their test button. */
export const testsDue = ({ tests_open: open, tests_due: due }: HomeOverview): number =>
  open + due.filter((at) => at <= now()).length;

/** The same in words. */
export function testsNow(home: HomeOverview): string {
  const count = testsDue(home);
  if (home.tests_open + home.tests_due.length === 0) return "no test buttons recorded";
  if (count === 0) return "none is due";
  return count === 1 ? "1 is due" : `${count} are due`;
}
