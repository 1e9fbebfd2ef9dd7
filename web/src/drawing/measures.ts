import type { Part, PanelView } from "../api/client";

/** The fingerpost's measures in its own drawing units. */
export interface Measures {
  width: number;
  height: number;
  row: number;
  top: number;
  postLeft: number;
  postWidth: number;
  /** Length of a blade, tip and all. */
  blade: number;
  tip: number;
  /** Room beyond the tips, for what stands beside a blade. */
  margin: number;
  narrow: boolean;
}

export function measures(view: PanelView, narrow: boolean): Measures {
  // Half blades are to be read at arm's length too: with them in it, the whole panel is drawn taller.
  const halves = [...view.breakers.flatMap((b) => b.parts), ...view.open.map((o) => o.part)].some(
    (p) => p.height === 1,
  );
  const row = narrow ? (halves ? 54 : 40) : halves ? 38 : 34;
  const margin = narrow ? 20 : 26;
  const blade = narrow ? 142 : 256;
  const postWidth = narrow ? 50 : 76;
  const one = view.panel.columns === "one";
  const top = 40;
  const wide = one ? blade * 2 : blade;
  return {
    width: (one ? wide + margin : 2 * (blade + margin)) + postWidth + 4,
    height: top + view.rows.length * row + 14,
    row,
    top,
    postLeft: wide + margin + 2,
    postWidth,
    blade: wide,
    tip: narrow ? 10 : 14,
    margin,
    narrow,
  };
}

/** Cuts a text to a width, judged by the mean width of a letter. */
export function cut(text: string, width: number, size: number): string {
  const letters = Math.max(1, Math.floor(width / (size * 0.5)));
  return text.length <= letters ? text : `${text.slice(0, Math.max(1, letters - 1)).trimEnd()}…`;
}

/** The outline of a stretch of a column: its path, and the lines its texts stand on. `out` is the way it points. */
export function outline(part: Part, side: "left" | "right", m: Measures) {
  const gap = 2;
  const y = m.top + (part.top * m.row) / 2;
  const height = (part.height * m.row) / 2;
  const inner = side === "left" ? m.postLeft : m.postLeft + m.postWidth;
  const out = side === "left" ? -1 : 1;
  const [top, bottom] = [y + gap / 2, y + height - gap / 2];
  const middle = (top + bottom) / 2;
  const shoulder = inner + out * (m.blade - m.tip);
  const path = `M${inner} ${top} H${shoulder} L${inner + out * m.blade} ${middle} L${shoulder} ${bottom} H${inner} Z`;
  return { top, bottom, middle, inner, out, shoulder, path };
}

/** The middle of a stretch, for what is drawn on the post beside it. */
export const middleOf = (part: Part, m: Measures): number => m.top + ((part.top + part.height / 2) * m.row) / 2;

/** The size of the letters of a tag on the plan, in millimeters of the floor. */
export const tagFont = (height: number): number => height * 0.64;
