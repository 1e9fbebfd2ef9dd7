/** Yes, no, or nobody has looked. */
export type YesNo = "" | "yes" | "no";
export const YES_NO: readonly (readonly [YesNo, string])[] = [
  ["", "not looked at"],
  ["yes", "yes"],
  ["no", "no"],
];
export const yesNo = (value: boolean | null | undefined): YesNo => (value == null ? "" : value ? "yes" : "no");
export const fromYesNo = (value: YesNo): boolean | null => (value === "" ? null : value === "yes");

/** A number as typed, or nothing. */
export const numberOrNull = (text: string): number | null => (text.trim() === "" ? null : Number(text));
