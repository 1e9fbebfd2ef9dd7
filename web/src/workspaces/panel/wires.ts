import type { Wire } from "../../api/client";
import { LISTS } from "../../api/generated/lists";

/** Every wire size and metal as a choice; the empty one was not read. */
export const WIRES: readonly (readonly [string, string])[] = [["", "not read"], ...LISTS.wires];

export const wireName = (wire: Wire | null | undefined): string =>
  wire ? `${wire.gauge} ${wire.metal ?? "copper"}` : "";

/** The wire of a choice; what was read of it before stays. */
export function wireOf(name: string, before: Wire | null | undefined, more: Partial<Wire> = {}): Wire | null {
  if (name === "") return null;
  const [gauge, metal] = name.split(" ");
  return {
    terminals: before?.terminals ?? "unread",
    cable: before?.cable ?? "not_read",
    ...more,
    gauge: gauge as Wire["gauge"],
    metal: metal === "aluminum" ? "aluminum" : "copper",
  };
}

/** `12 AWG copper`. */
export const wireWords = (wire: Wire): string => WIRES.find(([name]) => name === wireName(wire))?.[1] ?? "";
