import { createContext, useContext } from "react";

export interface Say {
  /** Something went wrong: what happened, what was kept, what to do. */
  problem: (error: unknown) => void;
  /** Something was done, and how it is taken back. */
  done: (words: string, undo?: () => void) => void;
}

export const NoticeContext = createContext<Say>({ problem: () => undefined, done: () => undefined });

export const useNotice = () => useContext(NoticeContext);

export function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : "Something went wrong. What was recorded is kept.";
}
