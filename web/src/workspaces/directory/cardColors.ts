import type { CardCell, LoadDoes } from "../../api/client";

/** By what the lines of a card are colored. */
export type CardColors = "load" | "amps" | "none";

export const CARD_COLORS: readonly (readonly [CardColors, string])[] = [
  ["load", "by the biggest load"],
  ["amps", "by amps"],
  ["none", "none"],
];

/** The card is paper, whatever the screen is. */
export const PAPER = {
  card: "#fffdf7",
  ink: "#1d2a2e",
  soft: "#4f5c5e",
  rule: "#d8d2c2",
  rail: "#ece6d8",
} as const;

const BY_LOAD: Record<LoadDoes, { letter: string; color: string }> = {
  heat: { letter: "H", color: "#ebb89c" },
  cool: { letter: "C", color: "#b9d4e0" },
  light: { letter: "L", color: "#f3dc92" },
  motor: { letter: "M", color: "#cdc4e2" },
  other: { letter: "R", color: "#d5dbbd" },
};

const BY_AMPS: readonly (readonly [number, string])[] = [
  [15, "#fbf1cf"],
  [20, "#f0d99b"],
  [30, "#e3b984"],
  [50, "#d0987e"],
  [Infinity, "#b8828c"],
];

/** The box beside the number: its color, and the letter of the load. */
export function boxOf(cell: CardCell, colors: CardColors): { letter: string; color: string } | undefined {
  if (colors === "load") return cell.does == null ? undefined : BY_LOAD[cell.does];
  const amps = Number(cell.amps);
  if (colors === "none" || cell.amps === "" || !Number.isFinite(amps)) return undefined;
  return { letter: "", color: BY_AMPS.find(([most]) => amps <= most)?.[1] ?? PAPER.rail };
}

const KEY = "wayfinder-card-colors";

/** What was chosen on this device. */
export function keptColors(): CardColors {
  const kept = localStorage.getItem(KEY);
  return CARD_COLORS.find(([color]) => color === kept)?.[0] ?? "load";
}

export const keepColors = (colors: CardColors): void => localStorage.setItem(KEY, colors);
