import { LISTS } from "../../api/generated/lists";

/** What the form of a panel offers beside the lists of the program: choices that stand for more than one field. */
export const NUMBERINGS = [
  ["odd_even", "Odd down the left, even down the right"],
  ["straight_down", "Straight down the left, then down the right"],
  ["one", "One column, straight down"],
  ["engraved", "Another way: as engraved"],
] as const;
export const TANDEMS = [
  ["not_read", "label not read"],
  ["none", "in no space"],
  ["all", "in every space"],
  ["in", "in these spaces"],
] as const;
export const DISCONNECTS = [["", "not known"], ...LISTS.disconnects] as const;
export const BONDS = [["", "not looked at"], ...LISTS.bonds] as const;
