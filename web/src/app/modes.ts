/** The colors that somebody may choose on this device. */
export const MODES = [
  ["system", "As the system has them"],
  ["light", "Light"],
  ["dark", "Dark, for cellars"],
] as const;
