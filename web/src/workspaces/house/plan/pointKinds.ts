import type { PointDetails, PointKind } from "../../../api/client";

/** Nothing more is known of it. */
export const NO_DETAILS: PointDetails = {
  outlets: "duplex",
  half_of: null,
  gfci: false,
  outdoor: false,
  weather_resistant: false,
  dark_minutes: null,
};

export interface Placeable {
  key: string;
  words: string;
  kind: PointKind;
  volts: 120 | 240;
  details: PointDetails;
}

const thing = (
  key: string,
  words: string,
  kind: PointKind,
  volts: 120 | 240 = 120,
  details: Partial<PointDetails> = {},
): Placeable => ({ key, words, kind, volts, details: { ...NO_DETAILS, ...details } });

/** What can be tapped onto the plan, the most frequent first. */
export const PLACEABLE: readonly Placeable[] = [
  thing("receptacle", "Receptacle", "receptacle"),
  thing("light", "Light", "light"),
  thing("switch", "Switch", "switch"),
  thing("appliance", "Appliance", "appliance"),
  thing("alarm", "Alarm", "alarm"),
  thing("gfci", "GFCI receptacle", "receptacle", 120, { gfci: true }),
  thing("quad", "Quad receptacle", "receptacle", 120, { outlets: "quad" }),
  thing("single", "Single receptacle", "receptacle", 120, { outlets: "single" }),
  thing("outdoor", "Outdoor receptacle", "receptacle", 120, { outdoor: true }),
  thing("high", "240 V receptacle", "receptacle", 240),
  thing("high-appliance", "240 V appliance", "appliance", 240),
  thing("fan", "Fan", "fan"),
  thing("junction", "Junction box", "junction_box"),
  thing("capped", "Capped cable", "capped_cable"),
];
