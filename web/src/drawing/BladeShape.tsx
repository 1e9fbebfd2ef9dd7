import type { BreakerView, OpenSpace, Part } from "../api/client";
import { tone } from "../app/theme";
import { cut, outline, type Measures } from "./measures";

const HEAD = "Overpass Variable";
const TEXT = "Atkinson Hyperlegible Next Variable";
const PROTECTION = { standard: "", gfci: "GFCI", afci: "AFCI", dual_function: "DUAL" } as const;

interface Props {
  breaker: BreakerView;
  m: Measures;
  selected: boolean;
  /** How grave the gravest finding about it is. */
  worry: "danger" | "fault" | null;
}

/** A breaker as a blade: its number at the post, what it feeds, its amps at the tip. */
export function BladeShape({ breaker, m, selected, worry }: Props) {
  const [first] = breaker.parts;
  if (!first) return null;
  return (
    <>
      {breaker.parts.map((part, n) => (
        <BladePart key={part.top} breaker={breaker} part={part} m={m} selected={selected} second={n > 0} />
      ))}
      {worry && <Worry breaker={breaker} part={first} m={m} worry={worry} />}
    </>
  );
}

/** What a blade says: what is proven, where it leads, or what the old card claims. */
function words(breaker: BreakerView): { text: string; known: boolean } {
  const [fed] = breaker.feeds;
  if (fed) return { text: `to ${fed.name}`, known: true };
  if (breaker.details.feeds) return { text: `to ${breaker.details.feeds}`, known: false };
  if (breaker.details.back_fed_main) return { text: "main, back-fed", known: true };
  if (breaker.wording) return { text: breaker.wording, known: true };
  return { text: breaker.claim ? `“${breaker.claim}”` : "not traced yet", known: false };
}

interface PartProps extends Omit<Props, "worry"> {
  part: Part;
  second: boolean;
}

function BladePart({ breaker, part, m, selected, second }: PartProps) {
  const f = outline(part, breaker.side, m);
  const half = part.height === 1;
  const numberSize = half ? 14.5 : m.narrow ? 18 : 16;
  const size = half ? 13 : m.narrow ? 13 : 13.5;
  const mark = PROTECTION[breaker.protection];
  const ampsWidth = m.narrow ? 20 : 34;
  const numberWidth = Math.min(
    m.blade - m.tip - ampsWidth,
    Math.max(m.narrow ? 26 : 34, breaker.number.length * numberSize * 0.62 + 12),
  );
  const markWidth = mark && !m.narrow ? 46 : 0;
  // On a phone a long number leaves no room beside it: the words go below.
  const below = m.narrow && !half && breaker.number.length > 5;
  const worryWidth = breaker.shares_neutral_with.length > 0 ? (m.narrow ? 18 : 24) : 0;
  const width = m.blade - m.tip - (below ? 8 : numberWidth) - ampsWidth - markWidth - worryWidth;
  const { text, known } = words(breaker);
  const label = second ? "same breaker" : text;
  const anchor = breaker.side === "left" ? "end" : "start";
  const base = f.middle + size * 0.36 - (half ? 0 : 1);
  const edge =
    breaker.state === "tripped" ? tone("danger") : breaker.state === "off" || selected ? tone("blaze") : tone("ink");
  const span = m.blade - m.tip - 4;
  const share = breaker.proven === 0 ? 0 : breaker.proven / (breaker.proven + breaker.possible);
  const leads = breaker.feeds.length > 0 || breaker.details.feeds !== "";
  return (
    <>
      <path
        d={f.path}
        fill={breaker.state === "on" ? tone("card") : tone("rail")}
        stroke={edge}
        strokeWidth={selected || breaker.state !== "on" ? 3 : 1.6}
        strokeLinejoin="round"
      />
      {leads && (
        <path
          d={`M${f.shoulder - f.out * 6} ${f.top + 1} L${f.shoulder + f.out * (m.tip - 7)} ${f.middle} L${f.shoulder - f.out * 6} ${f.bottom - 1}`}
          fill="none"
          stroke={tone("pine")}
          strokeWidth="3"
        />
      )}
      {share > 0 && !second && (
        <rect
          x={breaker.side === "left" ? f.inner - 2 - span * share : f.inner + 2}
          y={f.bottom - (half ? 3 : 5)}
          width={span * share}
          height={half ? 2.5 : 4}
          fill={tone("moss")}
        />
      )}
      <text
        x={f.inner + f.out * 8}
        y={f.middle + numberSize * 0.36 - 1 - (below ? 9 : 0)}
        textAnchor={anchor}
        fill={tone("ink")}
        fontFamily={HEAD}
        fontWeight="800"
        fontSize={numberSize}
      >
        {breaker.number}
      </text>
      {width > 24 && (
        <text
          x={f.inner + f.out * (below ? 8 : numberWidth)}
          y={base + (below ? 11 : 0)}
          textAnchor={anchor}
          fill={known ? tone("ink") : tone("soft")}
          fontFamily={TEXT}
          fontStyle={known && !second ? "normal" : "italic"}
          fontSize={size}
        >
          {cut(label, width, size)}
        </text>
      )}
      {markWidth > 0 && !second && (
        <g
          transform={`translate(${f.inner + f.out * (m.blade - m.tip - ampsWidth - worryWidth - 22)} ${f.middle - 1})`}
        >
          <rect
            x="-23"
            y={half ? -7 : -9}
            width="46"
            height={half ? 14 : 18}
            rx="9"
            fill="none"
            stroke={tone("pine")}
            strokeWidth="1.2"
          />
          <text y="4" textAnchor="middle" fill={tone("pine")} fontFamily={HEAD} fontWeight="700" fontSize="13">
            {mark}
          </text>
        </g>
      )}
      <text
        x={f.shoulder - f.out * (leads ? 8 : m.narrow ? 0 : 4)}
        y={f.middle + 4}
        textAnchor={breaker.side === "left" ? "start" : "end"}
        fill={tone("soft")}
        fontFamily={HEAD}
        fontWeight="700"
        fontSize={13}
      >
        {breaker.amps}
      </text>
    </>
  );
}

/** A finding about it, beyond the tip: a filled lozenge for danger, an empty one for a fault. */
function Worry({
  breaker,
  part,
  m,
  worry,
}: {
  breaker: BreakerView;
  part: Part;
  m: Measures;
  worry: "danger" | "fault";
}) {
  const f = outline(part, breaker.side, m);
  const size = part.height === 1 ? 7.5 : 8.5;
  // Beyond the tip; where the bracket of a shared neutral is there, within the blade beside the amps.
  const shared = breaker.shares_neutral_with.length > 0;
  const x = shared ? f.shoulder - f.out * (m.narrow ? 28 : 44) : f.inner + f.out * (m.blade + (m.narrow ? 8 : 11));
  const danger = worry === "danger";
  return (
    <g transform={`translate(${x} ${f.middle})`} data-worry={worry}>
      <path
        d={`M0 ${-size} L${size} 0 L0 ${size} L${-size} 0 Z`}
        fill={danger ? tone("danger") : tone("paper")}
        stroke={tone("danger")}
        strokeWidth="1.8"
      />
      <text
        y={size * 0.45}
        textAnchor="middle"
        fontFamily={HEAD}
        fontWeight="800"
        fontSize={Math.max(size * 1.35, 13)}
        fill={danger ? tone("paper") : tone("danger")}
      >
        !
      </text>
    </g>
  );
}

/** A space without a breaker; crossed where nothing closes it, plain with a sill where a filler does. */
export function OpenShape({ open, m, selected }: { open: OpenSpace; m: Measures; selected: boolean }) {
  const f = outline(open.part, open.side, m);
  const half = open.part.height === 1;
  const anchor = open.side === "left" ? "end" : "start";
  const gaping = open.filler === false;
  const edge = selected ? tone("blaze") : gaping ? tone("danger") : tone("soft");
  const x = f.inner + f.out * (m.blade - m.tip - 14);
  return (
    <>
      <path
        d={f.path}
        fill={open.filler ? tone("rail") : "transparent"}
        stroke={edge}
        strokeWidth={selected ? 3 : 1.2}
        strokeDasharray="5 4"
      />
      {gaping && (
        <path
          d={`M${x - 5} ${f.middle - 5} l10 10 m0 -10 l-10 10`}
          stroke={tone("danger")}
          strokeWidth="2.4"
          fill="none"
        />
      )}
      <text
        x={f.inner + f.out * 8}
        y={f.middle + (half ? 4 : 5)}
        textAnchor={anchor}
        fill={tone("soft")}
        fontFamily={HEAD}
        fontWeight="700"
        fontSize={half ? 13 : 14}
      >
        {open.number}
      </text>
      <text
        x={f.inner + f.out * 44}
        y={f.middle + (half ? 4 : 5)}
        textAnchor={anchor}
        fill={gaping ? tone("danger") : tone("soft")}
        fontFamily={TEXT}
        fontStyle="italic"
        fontSize={13}
      >
        {gaping ? (m.narrow ? "no filler" : "open, no filler") : open.filler ? "filler" : "open"}
      </text>
    </>
  );
}
