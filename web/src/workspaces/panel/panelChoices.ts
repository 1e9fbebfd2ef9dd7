/** What can be said of a panel, in words. */
export const NUMBERINGS = [
  ["odd_even", "Odd down the left, even down the right"],
  ["straight_down", "Straight down the left, then down the right"],
  ["one", "One column, straight down"],
  ["engraved", "Another way: as engraved"],
] as const;
export const SERVICES = [
  ["split_phase", "Split-phase 120/240 V"],
  ["two_legs_208", "Two legs of 208Y/120 V"],
  ["three_phase", "Three-phase 208Y/120 V"],
  ["high_leg", "Three-phase with a high leg: for an electrician"],
  ["one_leg_120", "120 V only"],
] as const;
export const INTERIORS = [
  ["breakers", "Breakers"],
  ["split_bus", "Split bus, no single main: for an electrician"],
  ["fuses", "Fuses: for an electrician"],
] as const;
export const MAINS = [
  ["not_read", "not looked at"],
  ["inside", "in this panel"],
  ["beside", "in a cabinet beside it"],
  ["outside", "outdoors"],
  ["lugs", "none: main-lug"],
] as const;
export const DISCONNECTS = [
  ["", "not known"],
  ["here", "in this panel"],
  ["ahead", "ahead of this panel"],
] as const;
export const BONDS = [
  ["", "not looked at"],
  ["joined", "joined"],
  ["apart", "apart"],
] as const;
export const TANDEMS = [
  ["not_read", "label not read"],
  ["none", "in no space"],
  ["all", "in every space"],
  ["in", "in these spaces"],
] as const;
export const SOURCES = [
  ["standby_generator", "Standby generator"],
  ["portable_generator", "Portable generator"],
  ["battery", "Battery"],
  ["solar", "Solar"],
  ["transfer_switch", "Transfer switch"],
  ["second_service", "Second service"],
] as const;
