/** A sheet of labels, lengths in millimeters. */
export interface LabelSheet {
  paperWidth: number;
  paperHeight: number;
  columns: number;
  rows: number;
  left: number;
  top: number;
  width: number;
  height: number;
  gapX: number;
  gapY: number;
}

const LETTER = { paperWidth: 215.9, paperHeight: 279.4 };
const A4 = { paperWidth: 210, paperHeight: 297 };

/** By their size alone; every length can be changed. */
export const PRESETS: readonly (readonly [string, string, LabelSheet])[] = [
  [
    "letter-30",
    "Letter, 3 by 10, 66 by 25 mm",
    { ...LETTER, columns: 3, rows: 10, left: 6, top: 14, width: 66, height: 25, gapX: 3, gapY: 0 },
  ],
  [
    "letter-60",
    "Letter, 4 by 15, 48 by 16 mm",
    { ...LETTER, columns: 4, rows: 15, left: 9, top: 14, width: 48, height: 16, gapX: 2, gapY: 0.5 },
  ],
  [
    "a4-24",
    "A4, 3 by 8, 64 by 33 mm",
    { ...A4, columns: 3, rows: 8, left: 8, top: 15, width: 64, height: 33, gapX: 1, gapY: 0 },
  ],
  [
    "a4-65",
    "A4, 5 by 13, 38 by 21 mm",
    { ...A4, columns: 5, rows: 13, left: 6, top: 11, width: 38, height: 21, gapX: 2, gapY: 0 },
  ],
];

const KEY = "wayfinder-labels";

/** The sheet that was last used on this device. */
export function keptSheet(): LabelSheet {
  const first = PRESETS[0]?.[2];
  if (first === undefined) throw new Error("there is a preset");
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? "null");
    const whole = (sheet: unknown): sheet is LabelSheet =>
      typeof sheet === "object" &&
      sheet !== null &&
      Object.keys(first).every((key) => Number.isFinite((sheet as Record<string, unknown>)[key]));
    return whole(kept) ? kept : first;
  } catch {
    return first;
  }
}

export const keepSheet = (sheet: LabelSheet): void => localStorage.setItem(KEY, JSON.stringify(sheet));

/** The address of the printed sheets. */
export function sheetsPdf(home: string, sheet: LabelSheet, begin: number, changed: boolean): string {
  const query = new URLSearchParams({
    paper_width: String(sheet.paperWidth),
    paper_height: String(sheet.paperHeight),
    columns: String(sheet.columns),
    rows: String(sheet.rows),
    left: String(sheet.left),
    top: String(sheet.top),
    width: String(sheet.width),
    height: String(sheet.height),
    gap_x: String(sheet.gapX),
    gap_y: String(sheet.gapY),
    begin: String(begin),
    changed: String(changed),
  });
  return `/api/homes/${home}/stickers.pdf?${query.toString()}`;
}
