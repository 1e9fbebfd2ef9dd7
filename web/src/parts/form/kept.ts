import { useEffect, useState } from "react";

/**
 * What somebody has typed and not yet recorded: kept on this device until it is recorded or discarded, so that no tap beside a
 * dialog, no way back and no reload loses it.
 */
const shelf = (key: string) => `wayfinder-draft ${key}`;

export function readKept(key: string): unknown {
  try {
    const text = localStorage.getItem(shelf(key));
    return text === null ? null : JSON.parse(text);
  } catch {
    // A browser without storage, or something there that is not ours: then nothing was kept.
    return null;
  }
}

/** `null`: nothing is to be kept any more. */
export function writeKept(key: string, value: unknown): void {
  try {
    if (value === null) localStorage.removeItem(shelf(key));
    else localStorage.setItem(shelf(key), JSON.stringify(value));
  } catch {
    // Without storage it only lives as long as the page.
  }
}

/** A text that is kept while it is typed. An empty one is not kept. */
export function useKeptText(key: string): [string, (text: string) => void] {
  const [text, setText] = useState(() => {
    const kept = readKept(key);
    return typeof kept === "string" ? kept : "";
  });
  useEffect(() => writeKept(key, text === "" ? null : text), [key, text]);
  return [text, setText];
}
