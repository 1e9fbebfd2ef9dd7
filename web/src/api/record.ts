import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useSyncExternalStore } from "react";
import type { Draft, Fact, Instrument } from "./client";
import { outbox } from "./outbox";
import { refresh } from "./refresh";

export const newId = (): string => crypto.randomUUID();

const NAME_KEY = "wayfinder-name";

/** Who writes on this device. */
export const myName = (): string => localStorage.getItem(NAME_KEY)?.trim() || "Owner";
export const setMyName = (name: string): void => localStorage.setItem(NAME_KEY, name.trim().slice(0, 60));

export interface Observed {
  instrument?: Instrument;
  /** The breakers that the screen shows as off; the batch is refused when they changed meanwhile. */
  expectOff?: string[];
}

export function draft(fact: Fact, instrument?: Instrument): Draft {
  return { id: newId(), at: Date.now(), by: myName(), version: 3, fact, ...(instrument && { instrument }) };
}

/** Writes facts into the home's logbook, all or none; gives their lines. Rejects with the program's refusal. */
export function useRecord(home: string): (facts: Fact[], observed?: Observed) => Promise<string[]> {
  const client = useQueryClient();
  return useCallback(
    async (facts, observed = {}) => {
      const drafts = facts.map((fact) => draft(fact, observed.instrument));
      const seq = await outbox.send(home, drafts, observed.expectOff ?? null);
      await refresh(client, home, seq);
      return drafts.map((written) => written.id);
    },
    [client, home],
  );
}

/** What this device has written, acknowledged a moment ago or not yet. */
export const usePending = () => useSyncExternalStore(outbox.subscribe, outbox.pending);
export const useStuck = () => useSyncExternalStore(outbox.subscribe, outbox.isStuck);
