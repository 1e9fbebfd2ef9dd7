import { useEffect, useRef } from "react";

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) || target.role === "combobox")
  );
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
