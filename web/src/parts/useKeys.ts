import { useEffect, useRef } from "react";

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) || target.role === "combobox")
  );
}

/** A button, a link or a row of a list does its own thing on Enter. */
const ownEnter = (target: EventTarget | null) =>
  target instanceof Element && target.closest('button, a, summary, [role="button"], [role="radio"]') !== null;

/** Presses the main button of the step on the screen; the danger comes first. */
export function pressMain(): void {
  const main = (weight: string) => document.querySelector<HTMLElement>(`[data-weight="${weight}"] [data-main]`);
  (main("alarm") ?? main("loud"))?.click();
}

/** Single keys and pairs like "g p". Not while typing, not in a dialog, not with a modifier. */
export function useKeys(keys: Record<string, (() => void) | undefined>): void {
  const now = useRef(keys);
  useEffect(() => {
    now.current = keys;
  });
  useEffect(() => {
    let first = "";
    let since = 0;
    const pressed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || typing(event.target)) return;
      if (event.key === "Enter" && ownEnter(event.target)) return;
      if (document.querySelector('[role="dialog"], [role="menu"]')) return;
      const pair = first && Date.now() - since < 1500 ? `${first} ${event.key}` : "";
      first = "";
      const act = now.current[pair] ?? (pair ? undefined : now.current[event.key]);
      if (act) {
        event.preventDefault();
        act();
      } else if (event.key === "g") {
        first = event.key;
        since = Date.now();
      }
    };
    document.addEventListener("keydown", pressed);
    return () => document.removeEventListener("keydown", pressed);
  }, []);
}
