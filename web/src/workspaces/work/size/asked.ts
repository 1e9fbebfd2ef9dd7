import type { SizeAsked, SizedLoad, Units } from "../../../api/client";

/** What a circuit can feed, and the figures that its plate gives. */
export const FEEDS = [
  ["plain", "something that takes so many amperes"],
  ["charger", "a vehicle charger"],
  ["range", "a range"],
  ["dryer", "a dryer"],
  ["water_heater", "a water heater with a tank"],
  ["heat", "electric heat of a room"],
  ["cooling", "a cooling unit or a heat pump"],
  ["motor", "a motor"],
] as const;
export type Feeds = (typeof FEEDS)[number][0];

/** What is typed and chosen, as it stands in the fields. */
export interface Draft {
  name: string;
  feeds: Feeds;
  figure: string;
  most: string;
  continuous: boolean;
  volts: "120" | "208" | "240";
  ends: "wired" | "cord" | "several";
  neutral: boolean;
  metal: NonNullable<SizeAsked["metal"]>;
  cable: NonNullable<SizeAsked["cable"]>;
  terminals: NonNullable<SizeAsked["terminals"]>;
  insulation: NonNullable<SizeAsked["insulation"]>;
  carrying: string;
  celsius: string;
  length: string;
  panel: string;
  room: string;
  deep: string;
  wide: string;
  high: string;
  said: NonNullable<SizeAsked["said"]>;
}

export const emptyDraft = (panel: string): Draft => ({
  name: "",
  feeds: "plain",
  figure: "",
  most: "",
  continuous: false,
  volts: "240",
  ends: "wired",
  neutral: false,
  metal: "copper",
  cable: "nm",
  terminals: "unread",
  insulation: "c90",
  carrying: "2",
  celsius: "30",
  length: "",
  panel,
  room: "",
  deep: "",
  wide: "",
  high: "",
  said: [],
});

/** The unit of the first figure of a plate. */
export function figureOf(feeds: Feeds): string {
  switch (feeds) {
    case "plain":
      return "It takes, A";
    case "charger":
      return "Set to, A";
    case "motor":
      return "Horsepower";
    case "cooling":
      return "Minimum circuit ampacity, A";
    default:
      return "By its plate, W";
  }
}

const MM_PER: Record<Units, number> = { metric: 1000, feet_inches: 304.8 };
const MM_PER_SHORT: Record<Units, number> = { metric: 10, feet_inches: 25.4 };
export const longUnit = (units: Units) => (units === "metric" ? "m" : "ft");
export const shortUnit = (units: Units) => (units === "metric" ? "cm" : "in");

function loadOf(draft: Draft): SizedLoad {
  const figure = Number(draft.figure);
  switch (draft.feeds) {
    case "plain":
      return { feeds: "plain", amps: figure, continuous: draft.continuous };
    case "charger":
      return { feeds: "charger", amps: figure };
    case "motor":
      return { feeds: "motor", hundredths_hp: Math.round(figure * 100) };
    case "cooling":
      return { feeds: "cooling", wire_at_least: figure, breaker_at_most: Number(draft.most) };
    default:
      return { feeds: draft.feeds, watts: figure };
  }
}

/** What is asked of the program; nothing as long as the plate is not typed. */
export function askedOf(draft: Draft, units: Units): SizeAsked | null {
  if (!(Number(draft.figure) > 0) || (draft.feeds === "cooling" && !(Number(draft.most) > 0))) return null;
  const short = (text: string) => Math.round(Number(text) * MM_PER_SHORT[units]);
  const space = draft.deep !== "" && draft.wide !== "" && draft.high !== "";
  return {
    load: loadOf(draft),
    volts: Number(draft.volts),
    cord: draft.ends === "cord",
    several_receptacles: draft.ends === "several",
    neutral: draft.neutral,
    metal: draft.metal,
    cable: draft.cable,
    terminals: draft.terminals,
    insulation: draft.insulation,
    carrying: Number(draft.carrying) || 2,
    celsius: Number(draft.celsius),
    ...(draft.length !== "" && { one_way: Math.round(Number(draft.length) * MM_PER[units]) }),
    ...(draft.panel !== "" && { panel: draft.panel }),
    ...(draft.room !== "" && { room: draft.room }),
    ...(space && { space: { deep: short(draft.deep), wide: short(draft.wide), high: short(draft.high) } }),
    said: draft.said,
  };
}

/** The fields of a circuit that was kept. */
export function draftOf(name: string, asked: SizeAsked, units: Units): Draft {
  const { load } = asked;
  const figure =
    load.feeds === "plain" || load.feeds === "charger"
      ? load.amps
      : load.feeds === "motor"
        ? load.hundredths_hp / 100
        : load.feeds === "cooling"
          ? load.wire_at_least
          : load.watts;
  const long = (mm: number | null | undefined, per: number) =>
    mm == null ? "" : String(Math.round((mm / per) * 100) / 100);
  const short = (mm: number | undefined) => long(mm, MM_PER_SHORT[units]);
  return {
    ...emptyDraft(asked.panel ?? ""),
    name,
    feeds: load.feeds,
    figure: String(figure),
    most: load.feeds === "cooling" ? String(load.breaker_at_most) : "",
    continuous: load.feeds === "plain" && (load.continuous ?? false),
    volts: asked.volts === 120 ? "120" : asked.volts === 208 ? "208" : "240",
    ends: asked.several_receptacles ? "several" : asked.cord ? "cord" : "wired",
    neutral: asked.neutral ?? false,
    metal: asked.metal ?? "copper",
    cable: asked.cable ?? "not_read",
    terminals: asked.terminals ?? "unread",
    insulation: asked.insulation ?? "c60",
    carrying: String(asked.carrying),
    celsius: String(asked.celsius),
    length: long(asked.one_way, MM_PER[units]),
    room: asked.room ?? "",
    deep: short(asked.space?.deep),
    wide: short(asked.space?.wide),
    high: short(asked.space?.high),
    said: asked.said ?? [],
  };
}
