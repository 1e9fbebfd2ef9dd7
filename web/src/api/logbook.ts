import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Topic } from "./client";
import { now } from "./clock";
import { of } from "./queries";

/** Which lines of the logbook are wanted; an empty text counts for all. */
export interface LinesWanted {
  before: number | null;
  after: number;
  text: string;
  by: string;
  room: string;
  breaker: string;
  topic: Topic | "";
}

/** A page of the logbook. While another is asked for, the last one stays. */
export const useLogbook = (home: string, wanted: LinesWanted) =>
  useQuery({
    queryKey: [...of(home), "logbook", wanted],
    placeholderData: keepPreviousData,
    queryFn: () => {
      const { before, after, text, by, room, breaker, topic } = wanted;
      const query = {
        ...(before !== null && { before }),
        ...(after > 0 && { after }),
        ...(text !== "" && { text }),
        ...(by !== "" && { by }),
        ...(room !== "" && { room }),
        ...(breaker !== "" && { breaker }),
        ...(topic !== "" && { topic }),
      };
      return answer(api.GET("/api/homes/{home}/logbook", { params: { path: { home }, query } }));
    },
  });

/** Since when: a moment, or the last visit of a person. */
export type Since = { since: number } | { visit: string };

/** What is otherwise since then; nothing is asked where it is null. */
export const useChanges = (home: string, since: Since | null) =>
  useQuery({
    queryKey: [...of(home), "changes", since],
    enabled: since !== null,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/changes", { params: { path: { home }, query: { ...since, now: now() } } })),
  });
