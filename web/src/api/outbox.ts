import { createStore, del, entries, set } from "idb-keyval";
import { v4 as uuid } from "uuid";
import { NoAnswer, ProblemError, answer, api, type Draft } from "./client";

/** A batch that is on its way: kept on this device until the program has acknowledged it. */
export interface Batch {
  key: string;
  home: string;
  entries: Draft[];
  /** The logbook's sequence with it, once it has been acknowledged. */
  seq?: number;
}

interface Waiting {
  resolve: (seq: number) => void;
  reject: (error: Error) => void;
}

const shelf = createStore("wayfinder-outbox", "batches");

/**
 * Every fact goes out through here, one batch after the other, in order. A batch is written to this
 * device first; it leaves when the program has acknowledged it or refused it. Without an answer it
 * stays and is sent again: entry ids make a resend harmless.
 */
class Outbox {
  private queue: Batch[] = [];
  private done: Batch[] = [];
  private all: Batch[] = [];
  private waiting = new Map<string, Waiting>();
  private listeners = new Set<() => void>();
  private busy = false;
  private pause = 500;
  private count = 0;
  private loaded: Promise<void>;
  /** A refusal that no form is waiting for any more, e.g. after a reload. */
  onOrphan: (error: Error) => void = () => undefined;
  /** The logbook's sequence with the batch; null when it was refused. */
  onSent: (home: string, seq: number | null) => void = () => undefined;
  stuck = false;

  constructor() {
    this.loaded = this.load();
    window.addEventListener("online", () => void this.flush());
  }

  private async load(): Promise<void> {
    try {
      const kept = await entries<string, Batch>(shelf);
      this.queue = [...kept.map(([, batch]) => batch), ...this.queue].sort((a, b) => a.key.localeCompare(b.key));
    } catch {
      // A browser without storage still sends; it only cannot keep across a reload.
    }
    this.changed();
    void this.flush();
  }

  async send(home: string, drafts: Draft[]): Promise<number> {
    await this.loaded;
    this.count += 1;
    const key = `${Date.now()}-${String(this.count).padStart(6, "0")}-${uuid()}`;
    const batch: Batch = { key, home, entries: drafts };
    this.queue = [...this.queue, batch];
    this.changed(); // shown at once: the next key is for the next point
    const done = new Promise<number>((resolve, reject) => this.waiting.set(key, { resolve, reject }));
    try {
      await set(key, batch, shelf);
    } catch {
      // As above.
    }
    void this.flush();
    return done;
  }

  private async flush(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    for (let batch = this.queue[0]; batch; batch = this.queue[0]) {
      const outcome = await post(batch);
      if (outcome instanceof NoAnswer) {
        this.stuck = true;
        this.changed();
        this.pause = Math.min(this.pause * 2, 8000);
        setTimeout(() => void this.flush(), this.pause);
        break;
      }
      this.stuck = false;
      this.pause = 500;
      this.settle(batch, outcome);
    }
    this.busy = false;
  }

  private settle(batch: Batch, outcome: ProblemError | number): void {
    this.queue = this.queue.filter((other) => other.key !== batch.key);
    if (typeof outcome === "number") this.linger({ ...batch, seq: outcome });
    this.changed();
    // Nobody waits for this: left behind, it would be sent again, which its ids make harmless.
    del(batch.key, shelf).catch(() => undefined);
    this.onSent(batch.home, typeof outcome === "number" ? outcome : null);
    const waiting = this.waiting.get(batch.key);
    this.waiting.delete(batch.key);
    if (typeof outcome === "number") waiting?.resolve(outcome);
    else if (waiting) waiting.reject(outcome);
    else this.onOrphan(outcome);
  }

  /** An acknowledged batch is still shown until the screens have asked again, or for a while at most. */
  private linger(batch: Batch): void {
    this.done = [...this.done, batch];
    setTimeout(() => {
      this.done = this.done.filter((other) => other.key !== batch.key);
      this.changed();
    }, 5000);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What this device has written: acknowledged a moment ago (with `seq`), or not yet. */
  pending = (): Batch[] => this.all;

  isStuck = (): boolean => this.stuck;

  /** Waits until this is done, or until the program does not answer. */
  async doneOrStuck(work: Promise<unknown>): Promise<void> {
    let stop = (): void => undefined;
    const stuck = new Promise<void>((resolve) => {
      const look = () => {
        if (this.stuck) resolve();
      };
      stop = this.subscribe(look);
      look();
    });
    await Promise.race([work.catch(() => undefined), stuck]);
    stop();
  }

  private changed(): void {
    this.all = [...this.done, ...this.queue];
    for (const listener of this.listeners) listener();
  }
}

async function post(batch: Batch): Promise<ProblemError | NoAnswer | number> {
  try {
    const body = { entries: batch.entries };
    const taken = await answer(api.POST("/api/homes/{home}/entries", { params: { path: { home: batch.home } }, body }));
    return taken.seq;
  } catch (error) {
    return error instanceof ProblemError ? error : new NoAnswer();
  }
}

export const outbox = new Outbox();
