import Box from "@mui/material/Box";
import { useRef, type KeyboardEvent, type ReactNode } from "react";
import type { Blade, Post } from "../api/client";
import { tone } from "../app/theme";
import { BladeShape, OpenShape } from "./BladeShape";
import { measures, outline, type Measures } from "./measures";
import { numberOfOpen, placeOfBlade, placeOfOpen, type PostPlace } from "./place";

interface Spot {
  place: PostPlace;
  number: string;
  left: boolean;
  row: number;
}

interface Props {
  post: Post;
  selected: PostPlace | null;
  onSelect: (place: PostPlace) => void;
  narrow: boolean;
}

/** The panel as a fingerpost: the bus is the post, each breaker a blade that points as it sits. */
export function Fingerpost({ post, selected, onSelect, narrow }: Props) {
  const root = useRef<SVGSVGElement>(null);
  const typed = useRef({ text: "", since: 0 });
  const m = measures(post, narrow);
  const spots: Spot[] = [
    ...post.blades.map((b) => ({ place: placeOfBlade(b), number: b.number, left: b.side === "left", row: b.row })),
    ...post.open.map((o) => ({ place: placeOfOpen(o), number: numberOfOpen(o), left: o.side === "left", row: o.row })),
  ].sort((a, b) => Number(b.left) - Number(a.left) || a.row - b.row || a.number.localeCompare(b.number));
  const current = spots.find((s) => s.place === selected) ?? spots[0];

  const go = (spot: Spot | undefined) => {
    if (!spot) return;
    onSelect(spot.place);
    root.current?.querySelector<SVGElement>(`[data-place="${spot.place}"]`)?.focus();
  };

  const key = (event: KeyboardEvent) => {
    if (!current || event.ctrlKey || event.metaKey || event.altKey) return;
    const column = spots.filter((s) => s.left === current.left);
    const at = column.indexOf(current);
    const across = () =>
      spots
        .filter((s) => s.left !== current.left)
        .sort((a, b) => Math.abs(a.row - current.row) - Math.abs(b.row - current.row))[0];
    if (/^[0-9]$/.test(event.key)) {
      const before = Date.now() - typed.current.since < 900 ? typed.current.text : "";
      typed.current = { text: before + event.key, since: Date.now() };
      go(spots.find((s) => s.number.split("-").some((part) => part.replace(/[ab]$/, "") === typed.current.text)));
    } else if (event.key === "ArrowDown") go(column[at + 1]);
    else if (event.key === "ArrowUp") go(column[at - 1]);
    else if (event.key === "ArrowLeft" && !current.left) go(across());
    else if (event.key === "ArrowRight" && current.left) go(across());
    else return;
    event.preventDefault();
  };

  const at = (place: PostPlace) => ({
    place,
    tabbed: current?.place === place,
    pressed: selected === place,
    onSelect,
  });

  return (
    <Box sx={{ maxWidth: m.width * (narrow ? 1.15 : 1.02), mx: "auto" }}>
      <svg
        ref={root}
        viewBox={`0 0 ${m.width} ${m.height}`}
        width="100%"
        role="group"
        aria-label={`Fingerpost of ${post.panel.name}: ${post.blades.length} breakers, ${post.panel.spaces} spaces`}
        onKeyDown={key}
        data-testid="fingerpost"
      >
        <Patterns />
        <Mast post={post} m={m} />
        {post.open.map((open) => {
          const place = placeOfOpen(open);
          const shape = <OpenShape open={open} number={numberOfOpen(open)} m={m} selected={selected === place} />;
          const label = `Space ${numberOfOpen(open)}, open`;
          return (
            <Spot key={place} {...at(place)} label={label} path={outline({ ...open, rows: 1 }, m).path} shape={shape} />
          );
        })}
        {post.blades.map((blade) => {
          const place = placeOfBlade(blade);
          const shape = <BladeShape blade={blade} m={m} selected={selected === place} />;
          return <Spot key={place} {...at(place)} label={spoken(blade)} path={outline(blade, m).path} shape={shape} />;
        })}
      </svg>
    </Box>
  );
}

function spoken(blade: Blade): string {
  const what = blade.wording || (blade.claim ? `not proven, old card: ${blade.claim}` : "not proven");
  return `Breaker ${blade.number}, ${blade.amps} amps, leg ${blade.legs.join(" and ")}, ${blade.state}, ${what}`;
}

interface SpotProps {
  place: PostPlace;
  label: string;
  tabbed: boolean;
  pressed: boolean;
  onSelect: (place: PostPlace) => void;
  path: string;
  shape: ReactNode;
}

/** A shape with a button of its outline over it: the name is spoken, the drawn texts are not read twice. */
function Spot({ place, label, tabbed, pressed, onSelect, path, shape }: SpotProps) {
  return (
    <>
      <g aria-hidden="true" pointerEvents="none">
        {shape}
      </g>
      <path
        d={path}
        fill="transparent"
        role="button"
        tabIndex={tabbed ? 0 : -1}
        aria-label={label}
        aria-pressed={pressed}
        data-place={place}
        onClick={() => onSelect(place)}
        onKeyDown={(event) => {
          if (event.key === "Enter" || event.key === " ") {
            event.preventDefault();
            onSelect(place);
          }
        }}
        style={{ cursor: "pointer", outlineOffset: -2 }}
      />
    </>
  );
}

/** Legs by pattern: A solid, B stripes, C dots. */
function Patterns() {
  return (
    <defs>
      <pattern id="leg-B" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="8" height="8" fill="#20594b" />
        <rect width="3" height="8" fill="#4d8374" />
      </pattern>
      <pattern id="leg-C" width="8" height="8" patternUnits="userSpaceOnUse">
        <rect width="8" height="8" fill="#20594b" />
        <circle cx="4" cy="4" r="1.7" fill="#86b3a6" />
      </pattern>
    </defs>
  );
}

function Mast({ post, m }: { post: Post; m: Measures }) {
  const middle = m.postLeft + m.postWidth / 2;
  const main = post.panel.main;
  return (
    <g aria-hidden="true">
      <path
        d={`M${m.postLeft} ${m.top} V26 L${middle} 4 L${m.postLeft + m.postWidth} 26 V${m.height - 6} H${m.postLeft} Z`}
        fill="#20594b"
      />
      {main != null && (
        <text
          x={middle}
          y={30}
          textAnchor="middle"
          fill="#fff"
          fontFamily="Overpass Variable"
          fontWeight="700"
          fontSize="13"
        >
          {main}
        </text>
      )}
      {post.rows.map((row) => (
        <g key={row.row}>
          {row.leg !== "A" && (
            <rect
              x={m.postLeft}
              y={m.top + row.row * m.row}
              width={m.postWidth}
              height={m.row}
              fill={`url(#leg-${row.leg})`}
            />
          )}
          <rect
            x={middle - 9}
            y={m.top + row.row * m.row + m.row / 2 - 10}
            width="18"
            height="20"
            rx="3"
            fill="#20594b"
          />
          <text
            x={middle}
            y={m.top + row.row * m.row + m.row / 2 + 5}
            textAnchor="middle"
            fill="#fff"
            fontFamily="Overpass Variable"
            fontWeight="700"
            fontSize="14"
          >
            {row.leg}
          </text>
        </g>
      ))}
      <rect
        x={m.postLeft}
        y={m.top + post.rows.length * m.row}
        width={m.postWidth}
        height={1}
        fill={tone("paper")}
        opacity="0.4"
      />
    </g>
  );
}
