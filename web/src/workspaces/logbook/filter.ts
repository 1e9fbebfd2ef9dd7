import type { Topic } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import type { Since } from "../../api/logbook";

/** What the logbook is narrowed to; an empty text counts for all. */
export interface Filter {
  /** A day as 2026-11-24, or `visit:` and a name. */
  since: string;
  text: string;
  by: string;
  room: string;
  breaker: string;
  topic: Topic | "";
}

export const ALL_LINES: Filter = { since: "", text: "", by: "", room: "", breaker: "", topic: "" };

const isTopic = (text: string): text is Topic => LISTS.topics.some(([topic]) => topic === text);

/** What stands in the address. */
export function asked(params: URLSearchParams): Filter {
  const text = (name: string) => params.get(name) ?? "";
  const topic = text("topic");
  return {
    since: text("since"),
    text: text("text"),
    by: text("by"),
    room: text("room"),
    breaker: text("breaker"),
    topic: isTopic(topic) ? topic : "",
  };
}

/** From the first moment of that day on this device's clock, or from somebody's last visit on. */
export function sinceOf(since: string): Since | null {
  if (since.startsWith("visit:")) return { visit: since.slice("visit:".length) };
  const day = new Date(`${since}T00:00`).getTime();
  return since === "" || Number.isNaN(day) ? null : { since: day };
}
