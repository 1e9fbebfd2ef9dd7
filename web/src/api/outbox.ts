import { createStore, del, entries, set } from "idb-keyval";
import { NoAnswer, ProblemError, answer, api, type Draft } from "./client";

/** A batch that is on its way: kept on this device until the program has acknowledged it. */
export interface Batch {
  key: string;
  home: string;
  entries: Draft[];
  expectOff: string[] | null;
}

interface Waiting {
  resolve: () => void;
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
  private waiting = new Map<string, Waiting>();
  private listeners = new Set<() => void>();
  private busy = false;
  private pause = 500;
  private count = 0;
  private loaded: Promise<void>;
  /** A refusal that no form is waiting for any more, e.g. after a reload. */
  onOrphan: (error: Error) => void = () => undefined;
  onSent: (home: string) => void = () => undefined;
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

  async send(home: string, drafts: Draft[], expectOff: string[] | null): Promise<void> {
    await this.loaded;
    this.count += 1;
    const key = `${Date.now()}-${String(this.count).padStart(6, "0")}-${crypto.randomUUID()}`;
    const batch: Batch = { key, home, entries: drafts, expectOff };
    this.queue = [...this.queue, batch];
    const done = new Promise<void>((resolve, reject) => this.waiting.set(key, { resolve, reject }));
    try {
      await set(key, batch, shelf);
    } catch {
      // As above.
    }
    this.changed();
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
      await this.settle(batch, outcome);
    }
    this.busy = false;
  }

  private async settle(batch: Batch, outcome: ProblemError | null): Promise<void> {
    this.queue = this.queue.filter((other) => other.key !== batch.key);
    try {
      await del(batch.key, shelf);
    } catch {
      // As above.
    }
    this.onSent(batch.home);
    const waiting = this.waiting.get(batch.key);
    this.waiting.delete(batch.key);
    if (outcome === null) waiting?.resolve();
    else if (waiting) waiting.reject(outcome);
    else this.onOrphan(outcome);
    this.changed();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** What has not been acknowledged yet. */
  pending = (): Batch[] => this.queue;

  isStuck = (): boolean => this.stuck;

  private changed(): void {
    for (const listener of this.listeners) listener();
  }
}

async function post(batch: Batch): Promise<ProblemError | NoAnswer | null> {
  try {
    const body = { entries: batch.entries, expect_off: batch.expectOff };
    await answer(api.POST("/api/homes/{home}/entries", { params: { path: { home: batch.home } }, body }));
    return null;
  } catch (error) {
    return error instanceof ProblemError ? error : new NoAnswer();
  }
}

export const outbox = new Outbox();
