import type { Post } from "../api/client";

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
  narrow: boolean;
}

export function measures(post: Post, narrow: boolean): Measures {
  const row = narrow ? 40 : 34;
  const blade = narrow ? 158 : 268;
  const postWidth = narrow ? 50 : 76;
  const one = post.panel.columns === "one";
  const top = 40;
  const wide = one ? blade * 2 : blade;
  return {
    width: (one ? wide : 2 * blade) + postWidth + 4,
    height: top + post.rows.length * row + 14,
    row,
    top,
    postLeft: wide + 2,
    postWidth,
    blade: wide,
    tip: narrow ? 10 : 14,
    narrow,
  };
}

/** Cuts a text to a width, judged by the mean width of a letter. */
export function cut(text: string, width: number, size: number): string {
  const letters = Math.max(1, Math.floor(width / (size * 0.5)));
  return text.length <= letters ? text : `${text.slice(0, Math.max(1, letters - 1)).trimEnd()}…`;
}

/** Where a blade or an open space sits. */
export interface Sits {
  side: "left" | "right";
  row: number;
  rows: number;
  half?: "upper" | "lower" | null;
}

/** The outline of a blade: its path, and the lines its texts stand on. `out` is the way it points. */
export function outline(sits: Sits, m: Measures) {
  const gap = 2;
  let y = m.top + sits.row * m.row;
  let height = m.row * sits.rows;
  if (sits.half) {
    height /= 2;
    if (sits.half === "lower") y += height;
  }
  const inner = sits.side === "left" ? m.postLeft : m.postLeft + m.postWidth;
  const out = sits.side === "left" ? -1 : 1;
  const [top, bottom] = [y + gap / 2, y + height - gap / 2];
  const middle = (top + bottom) / 2;
  const shoulder = inner + out * (m.blade - m.tip);
  const path = `M${inner} ${top} H${shoulder} L${inner + out * m.blade} ${middle} L${shoulder} ${bottom} H${inner} Z`;
  return { bottom, middle, inner, out, shoulder, path };
}
