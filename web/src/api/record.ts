import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useSyncExternalStore } from "react";
import { v4 as uuid } from "uuid";
import type { Draft, Fact, Instrument, Since } from "./client";
import { now } from "./clock";
import { outbox } from "./outbox";
import { LISTS } from "./generated/lists";
import { refresh } from "./refresh";

/** Also where the page came over plain HTTP from another machine, where the browser has no `crypto.randomUUID`. */
export const newId = (): string => uuid();

const NAME_KEY = "wayfinder-name";

/** Who writes on this device. */
export const myName = (): string => localStorage.getItem(NAME_KEY)?.trim() || "Owner";
export const setMyName = (name: string): void => localStorage.setItem(NAME_KEY, name.trim().slice(0, 60));

export interface Observed {
  instrument?: Instrument;
  /** How far this screen had followed the switching: looks and skips are filed under that. */
  since?: Since;
}

export function draft(fact: Fact, instrument?: Instrument): Draft {
  return { id: newId(), at: now(), by: myName(), version: LISTS.factVersion, fact, ...(instrument && { instrument }) };
}

type Look = Extract<Fact, { kind: (typeof LISTS.underASwitching)[number] }>;

const isUnderASwitching = (fact: Fact): fact is Look =>
  (LISTS.underASwitching as readonly string[]).includes(fact.kind);

function under(fact: Fact, since: Since | undefined): Fact {
  return since !== undefined && isUnderASwitching(fact) ? { ...fact, since } : fact;
}

/** Writes facts into the home's logbook, all or none; gives their lines. Rejects with the program's refusal. */
export function useRecord(home: string): (facts: Fact[], observed?: Observed) => Promise<string[]> {
  const client = useQueryClient();
  return useCallback(
    async (facts, observed = {}) => {
      const drafts = facts.map((fact) => draft(under(fact, observed.since), observed.instrument));
      const seq = await outbox.send(home, drafts);
      await refresh(client, home, seq);
      return drafts.map((written) => written.id);
    },
    [client, home],
  );
}

/**
 * The facts that this device has written into the home and that an answer of the sequence `seq` does not hold yet, in order: what
 * a screen shows at once, over what the program said last.
 */
export function useMeanwhile(home: string, seq: number): Fact[] {
  const pending = usePending();
  return useMemo(
    () =>
      pending
        .filter((batch) => batch.home === home && (batch.seq === undefined || batch.seq > seq))
        .flatMap((batch) => batch.entries.map((entry) => entry.fact)),
    [pending, home, seq],
  );
}

/** What this device has written, acknowledged a moment ago or not yet. */
export const usePending = () => useSyncExternalStore(outbox.subscribe, outbox.pending);
export const useStuck = () => useSyncExternalStore(outbox.subscribe, outbox.isStuck);
