import type { Fact } from "../../../api/client";

export type ReadingFact = Extract<Fact, { kind: "reading_taken" }>;

export type UtilityValues = {
  before: string;
  after: string;
  wh: string;
  turnsBefore: string;
  secondsBefore: string;
  turnsAfter: string;
  secondsAfter: string;
};
export const NOTHING_OF_UTILITY: UtilityValues = {
  before: "",
  after: "",
  wh: "",
  turnsBefore: "",
  secondsBefore: "",
  turnsAfter: "",
  secondsAfter: "",
};
/** What the utility's meter showed, by its kilowatts or by counting. */
export function utilityValue(how: "utility_kw" | "utility_turns", values: UtilityValues): ReadingFact["value"] {
  const number = (text: string) => Number(text);
  return how === "utility_kw"
    ? { unit: "meter_kw", before: number(values.before), after: number(values.after) }
    : {
        unit: "meter_turns",
        wh_each: number(values.wh),
        before: { count: number(values.turnsBefore), seconds: number(values.secondsBefore) },
        after: { count: number(values.turnsAfter), seconds: number(values.secondsAfter) },
      };
}
