import type { Blade, OpenSpace } from "../api/client";
import { tone } from "../app/theme";
import { cut, outline, type Measures } from "./measures";

const HEAD = "Overpass Variable";
const TEXT = "Atkinson Hyperlegible Next Variable";
const PROTECTION = { standard: "", gfci: "GFCI", afci: "AFCI", dual_function: "DUAL" } as const;

/** A breaker as a blade: its number at the post, what it feeds, its amps at the tip. */
export function BladeShape({ blade, m, selected }: { blade: Blade; m: Measures; selected: boolean }) {
  const f = outline(blade, m);
  const half = Boolean(blade.half);
  const numberSize = half ? 12 : m.narrow ? 18 : 16;
  const size = half ? 11 : m.narrow ? 13 : 13.5;
  const numberWidth = Math.max(m.narrow ? 26 : 34, blade.number.length * numberSize * 0.62 + 12);
  const mark = PROTECTION[blade.protection];
  const markWidth = mark && !m.narrow ? 46 : 0;
  const ampsWidth = m.narrow ? 20 : 34;
  const width = m.blade - m.tip - numberWidth - ampsWidth - markWidth;
  const known = blade.wording !== "";
  const label = known ? blade.wording : blade.claim ? `“${blade.claim}”` : "not traced yet";
  const anchor = blade.side === "left" ? "end" : "start";
  const base = f.middle + size * 0.36 - (half ? 0 : 1);
  const edge =
    blade.state === "tripped" ? tone("danger") : blade.state === "off" || selected ? tone("blaze") : tone("ink");
  const span = m.blade - m.tip - 4;
  const share = blade.proven === 0 ? 0 : blade.proven / (blade.proven + blade.possible);
  return (
    <>
      <path
        d={f.path}
        fill={blade.state === "on" ? tone("card") : tone("rail")}
        stroke={edge}
        strokeWidth={selected || blade.state !== "on" ? 3 : 1.6}
        strokeLinejoin="round"
      />
      {share > 0 && (
        <rect
          x={blade.side === "left" ? f.inner - 2 - span * share : f.inner + 2}
          y={f.bottom - 5}
          width={span * share}
          height={4}
          fill={tone("moss")}
        />
      )}
      <text
        x={f.inner + f.out * 8}
        y={f.middle + numberSize * 0.36 - 1}
        textAnchor={anchor}
        fill={tone("ink")}
        fontFamily={HEAD}
        fontWeight="800"
        fontSize={numberSize}
      >
        {blade.number}
      </text>
      <text
        x={f.inner + f.out * numberWidth}
        y={base}
        textAnchor={anchor}
        fill={known ? tone("ink") : tone("soft")}
        fontFamily={TEXT}
        fontStyle={known ? "normal" : "italic"}
        fontSize={size}
      >
        {cut(label, width, size)}
      </text>
      {markWidth > 0 && (
        <g transform={`translate(${f.inner + f.out * (m.blade - m.tip - ampsWidth - 22)} ${f.middle - 1})`}>
          <rect x="-20" y="-9" width="40" height="18" rx="9" fill="none" stroke={tone("pine")} strokeWidth="1.2" />
          <text y="4" textAnchor="middle" fill={tone("pine")} fontFamily={HEAD} fontWeight="700" fontSize="10.5">
            {mark}
          </text>
        </g>
      )}
      <text
        x={f.shoulder - f.out * (m.narrow ? 0 : 4)}
        y={f.middle + 4}
        textAnchor={blade.side === "left" ? "start" : "end"}
        fill={tone("soft")}
        fontFamily={HEAD}
        fontWeight="700"
        fontSize={half ? 11 : 13}
      >
        {blade.amps}
      </text>
      <Stud blade={blade} x={f.inner - f.out * 10} y={f.middle} />
    </>
  );
}

/** Where the handle stands, on the post beside the blade. */
function Stud({ blade, x, y }: { blade: Blade; x: number; y: number }) {
  const r = blade.half ? 4 : 5.5;
  if (blade.state === "tripped") {
    return <path d={`M${x - 5} ${y - 5} l10 10 m0 -10 l-10 10`} stroke="#fff" strokeWidth="3" fill="none" />;
  }
  return blade.state === "on" ? (
    <circle cx={x} cy={y} r={r} fill="#fff" />
  ) : (
    <circle cx={x} cy={y} r={r} fill="#20594b" stroke="#f08a55" strokeWidth="3" />
  );
}

/** A space without a breaker. */
export function OpenShape({
  open,
  number,
  m,
  selected,
}: {
  open: OpenSpace;
  number: string;
  m: Measures;
  selected: boolean;
}) {
  const f = outline({ ...open, rows: 1 }, m);
  const anchor = open.side === "left" ? "end" : "start";
  return (
    <>
      <path
        d={f.path}
        fill="transparent"
        stroke={selected ? tone("blaze") : tone("soft")}
        strokeWidth={selected ? 3 : 1.2}
        strokeDasharray="5 4"
      />
      <text
        x={f.inner + f.out * 8}
        y={f.middle + 5}
        textAnchor={anchor}
        fill={tone("soft")}
        fontFamily={HEAD}
        fontWeight="700"
        fontSize="14"
      >
        {number}
      </text>
      <text
        x={f.inner + f.out * 40}
        y={f.middle + 5}
        textAnchor={anchor}
        fill={tone("soft")}
        fontFamily={TEXT}
        fontStyle="italic"
        fontSize="13"
      >
        open
      </text>
    </>
  );
}
