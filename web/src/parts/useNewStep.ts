import { useEffect, useRef } from "react";
import type { StepCard } from "../api/client";

/** What makes it another step: its title and its handles. What it is for may be worded anew meanwhile. */
export const stepId = (card: StepCard) =>
  `${card.title} ${card.switches.flatMap((part) => part.handles.map((handle) => handle.breaker)).join(" ")}`;

/**
 * Takes the focus to the heading of the step that now waits, when it is another one than before. Somebody who is typing is
 * left alone.
 */
export function useNewStep(cards: StepCard[]): void {
  const step = cards.map(stepId).join("\n");
  const before = useRef(step);
  useEffect(() => {
    if (before.current === step) return;
    before.current = step;
    if (document.activeElement instanceof HTMLInputElement || document.querySelector('[role="dialog"], [role="menu"]'))
      return;
    const waiting = '[data-weight="alarm"] [tabindex="-1"], [data-weight="loud"] [tabindex="-1"]';
    document.querySelector<HTMLElement>(waiting)?.focus({ preventScroll: window.scrollY < 80 });
  }, [step]);
}
