import Box from "@mui/material/Box";
import {
  memo,
  useCallback,
  useEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from "react";
import type { Plan, PlanFloor, PlanPoint, PlanRoom, Spot, SymbolDrawing } from "../api/client";
import { tone } from "../app/theme";
import { PlanSymbol } from "./PlanSymbol";
import { tagFont } from "./measures";
import { PlanTagShape } from "./PlanTagShape";
import { PlanWalls } from "./PlanWalls";

/** `p:` and a point, or `r:` and a room. */
export type PlanPlace = string;

interface Props {
  plan: Pick<Plan, "symbols">;
  floor: PlanFloor;
  home: string;
  selected: PlanPlace | null;
  onSelect: (place: PlanPlace | null) => void;
  /** Set while something is being placed: a tap anywhere gives the place. */
  onTap: ((at: Spot) => void) | null;
  /** The selected thing was dragged here (a room: the corner of its box). */
  onDrag: ((place: PlanPlace, to: Spot) => void) | null;
  /** 1: as large as is needed to read it; 0: all of it in the frame. */
  zoom: number;
  /** Points to point out: what goes dark with the selected one. */
  lit?: ReadonlySet<string>;
  children?: ReactNode;
}

const MARGIN = 700;

/** The letters of a tag on the screen, in pixels, where the plan is not zoomed. */
const READABLE = 11;

/** A floor to scale: rooms, walls and symbols with their tags; every one of them reached by Tab and arrows. */
export function PlanDrawing(props: Props) {
  const { plan, floor, selected, onSelect, onTap, onDrag, zoom } = props;
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ place: PlanPlace; from: Spot; by: Spot } | null>(null);
  useEffect(() => {
    // What is selected comes into sight in a plan that is larger than its frame.
    if (selected === null) return;
    const mark = svg.current?.querySelector(`[data-place="${selected}"]`);
    mark?.scrollIntoView({ inline: "center", block: "nearest" });
  }, [selected, zoom]);
  const bounds = floor.bounds ?? { x: 0, y: 0, width: 8000, height: 5000 };
  const box = {
    x: bounds.x - MARGIN,
    y: bounds.y - MARGIN,
    w: bounds.width + 2 * MARGIN,
    h: bounds.height + 2 * MARGIN,
  };
  const [frame, setFrame] = useState(0);
  const measure = useCallback((element: HTMLElement | null) => {
    if (!element) return;
    const watch = new ResizeObserver(() => setFrame(element.clientWidth));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  // It uses the width it has, and is wider and scrolled where its tags could not be read otherwise.
  const width = Math.max(frame, (READABLE * box.w) / tagFont(floor.tag_height)) * zoom;
  const spotOf = (event: { clientX: number; clientY: number }): Spot => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return { x: 0, y: 0 };
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return { x: Math.round(at.x), y: Math.round(at.y) };
  };
  const start = (event: PointerEvent, place: PlanPlace) => {
    // Only what is selected is dragged, so that a plan is never changed by a slip.
    if (!onDrag || onTap || selected !== place || event.button !== 0) return;
    svg.current?.setPointerCapture(event.pointerId);
    setDrag({ place, from: spotOf(event), by: { x: 0, y: 0 } });
  };
  const move = (event: PointerEvent) => {
    if (!drag) return;
    const at = spotOf(event);
    setDrag({ ...drag, by: { x: at.x - drag.from.x, y: at.y - drag.from.y } });
  };
  const end = () => {
    if (!drag) return;
    setDrag(null);
    if (Math.hypot(drag.by.x, drag.by.y) > 60) moveBy(drag.place, drag.by);
  };
  const moveBy = (place: PlanPlace, by: Spot) => {
    const point = floor.points.find((p) => `p:${p.point}` === place);
    const room = floor.rooms.find((r) => `r:${r.room}` === place);
    const from = point?.at ?? (room && corner(room));
    if (from && onDrag) onDrag(place, { x: from.x + by.x, y: from.y + by.y });
  };
  // The same functions in every drawing, so that a point is drawn anew only when it changed.
  const latest = useRef({ onSelect, start });
  useEffect(() => {
    latest.current = { onSelect, start };
  });
  const steadySelect = useCallback((place: PlanPlace | null) => latest.current.onSelect(place), []);
  const steadyStart = useCallback((event: PointerEvent, place: PlanPlace) => latest.current.start(event, place), []);
  const places: PlanPlace[] = [...floor.points.map((p) => `p:${p.point}`), ...floor.rooms.map((r) => `r:${r.room}`)];
  const middleOf = (place: PlanPlace): Spot =>
    floor.points.find((p) => `p:${p.point}` === place)?.middle ??
    floor.rooms.find((r) => `r:${r.room}` === place)?.label ?? { x: 0, y: 0 };
  const focus = (place: PlanPlace) => {
    onSelect(place);
    svg.current?.querySelector<SVGElement>(`[data-place="${place}"]`)?.focus();
  };
  const key = (event: KeyboardEvent) => {
    const ways: Record<string, Spot> = {
      ArrowLeft: { x: -1, y: 0 },
      ArrowRight: { x: 1, y: 0 },
      ArrowUp: { x: 0, y: -1 },
      ArrowDown: { x: 0, y: 1 },
    };
    const way = ways[event.key];
    if (way) {
      event.preventDefault();
      if (event.shiftKey && selected) {
        moveBy(selected, { x: way.x * 100, y: way.y * 100 });
        return;
      }
      const from = middleOf(selected ?? places[0] ?? "");
      const cost = (place: PlanPlace): number => {
        const at = middleOf(place);
        const [dx, dy] = [at.x - from.x, at.y - from.y];
        const ahead = dx * way.x + dy * way.y;
        return ahead <= 0 ? Infinity : ahead + 2 * Math.abs(dx * way.y - dy * way.x);
      };
      const next = places.filter((p) => p !== selected).sort((a, b) => cost(a) - cost(b))[0];
      if (next !== undefined && cost(next) < Infinity) focus(next);
    } else if (event.key === "Escape") onSelect(null);
  };
  const at = (place: PlanPlace) => (drag?.place === place ? `translate(${drag.by.x} ${drag.by.y})` : undefined);
  return (
    <Box ref={measure} sx={{ overflow: "auto", maxHeight: { md: "calc(100dvh - 180px)" } }}>
      <Box
        component="svg"
        ref={svg}
        viewBox={`${box.x} ${box.y} ${box.w} ${box.h}`}
        role="group"
        aria-label={`Plan of ${floor.name}`}
        data-testid="plan"
        onKeyDown={key}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={() => setDrag(null)}
        onClick={(event) => onTap?.(spotOf(event))}
        sx={{
          display: "block",
          width: frame > 0 ? Math.max(width, frame) : "100%",
          cursor: onTap ? "crosshair" : "default",
          userSelect: "none",
          "& [data-place]:focus-visible": { outline: "none" },
          "& [data-place]:focus-visible .halo": { stroke: tone("blaze"), strokeWidth: 45 },
        }}
      >
        {floor.backdrop && (
          <image
            href={`/api/homes/${props.home}/photos/${floor.backdrop.photo}`}
            x={floor.backdrop.bounds.x}
            y={floor.backdrop.bounds.y}
            width={floor.backdrop.bounds.width}
            height={floor.backdrop.bounds.height}
            opacity={0.45}
            preserveAspectRatio="none"
          />
        )}
        {floor.rooms.map((room) => (
          <g key={room.room} transform={at(`r:${room.room}`)}>
            <RoomShape
              room={room}
              faint={floor.backdrop != null}
              selected={selected === `r:${room.room}`}
              onSelect={onSelect}
              passive={onTap !== null}
              onStart={start}
              first={selected === null && room === floor.rooms[0]}
            />
          </g>
        ))}
        <PlanWalls floor={floor} />
        {floor.rooms.map((room) => (
          <RoomName key={room.room} room={room} scale={floor.symbol_scale} at={at(`r:${room.room}`)} />
        ))}
        {floor.points.map((point) => (
          <g key={point.point} transform={at(`p:${point.point}`)}>
            <PointMark
              point={point}
              drawing={plan.symbols.find((s) => s.symbol === point.symbol)}
              scale={floor.symbol_scale}
              tagHeight={floor.tag_height}
              selected={selected === `p:${point.point}`}
              lit={props.lit?.has(point.point) ?? false}
              onSelect={steadySelect}
              passive={onTap !== null}
              onStart={steadyStart}
            />
          </g>
        ))}
        {props.children}
      </Box>
    </Box>
  );
}

/** The corner of the box around a room. */
const corner = (room: PlanRoom): Spot => ({
  x: Math.min(...room.outline.map((c) => c.x)),
  y: Math.min(...room.outline.map((c) => c.y)),
});

interface MarkProps {
  selected: boolean;
  passive: boolean;
  onSelect: (place: PlanPlace | null) => void;
  onStart: (event: PointerEvent, place: PlanPlace) => void;
}

const act = (place: PlanPlace, props: MarkProps) => ({
  "data-place": place,
  role: "button",
  "aria-pressed": props.selected,
  onFocus: () => !props.passive && props.onSelect(place),
  onPointerDown: (event: PointerEvent) => props.onStart(event, place),
  onClick: () => !props.passive && props.onSelect(place),
});

function RoomShape(props: MarkProps & { room: PlanRoom; first: boolean; faint: boolean }) {
  const { room, selected } = props;
  return (
    <g
      {...act(`r:${room.room}`, props)}
      tabIndex={selected || props.first ? 0 : -1}
      aria-label={`${room.name}, ${room.size}`}
      style={{ touchAction: selected ? "none" : "auto" }}
    >
      <polygon
        className="halo"
        points={room.outline.map((c) => `${c.x},${c.y}`).join(" ")}
        fill={tone("card")}
        fillOpacity={props.faint ? 0.55 : 1}
        stroke={selected ? tone("blaze") : "none"}
        strokeWidth={selected ? 130 : 0}
      />
    </g>
  );
}

/** Names lie over the walls and under the points. */
function RoomName({ room, scale, at }: { room: PlanRoom; scale: number; at: string | undefined }) {
  return (
    <g transform={at} textAnchor="middle" pointerEvents="none" aria-hidden="true">
      <text
        x={room.label.x}
        y={room.label.y}
        fontSize={230 * scale}
        fontFamily="Overpass Variable"
        fontWeight={700}
        fill={tone("ink")}
      >
        {room.name}
      </text>
      <text x={room.label.x} y={room.label.y + 230 * scale} fontSize={170 * scale} fill={tone("soft")}>
        {room.size}
      </text>
    </g>
  );
}

const PointMark = memo(function PointMark(
  props: MarkProps & {
    point: PlanPoint;
    drawing: SymbolDrawing | undefined;
    scale: number;
    tagHeight: number;
    lit: boolean;
  },
) {
  const { point, drawing, scale, tagHeight, selected } = props;
  const radius = 200 * scale;
  const { tag, middle } = point;
  return (
    <g data-point={point.point}>
      {props.lit && <circle cx={middle.x} cy={middle.y} r={radius} fill={tone("lit")} fillOpacity={0.55} />}
      <g transform={`translate(${point.at.x} ${point.at.y}) scale(${scale})`}>
        {drawing && <PlanSymbol drawing={drawing} turn={point.turn} />}
      </g>
      <PlanTagShape tag={tag} height={tagHeight} />
      <g
        {...act(`p:${point.point}`, props)}
        tabIndex={selected ? 0 : -1}
        aria-label={point.spoken}
        fill="transparent"
        style={{ cursor: "pointer", touchAction: selected ? "none" : "auto" }}
      >
        <circle
          className="halo"
          cx={middle.x}
          cy={middle.y}
          r={radius}
          stroke={selected ? tone("blaze") : "none"}
          strokeWidth={selected ? 45 : 0}
        />
        <rect x={tag.at.x - tag.width / 2} y={tag.at.y - tagHeight / 2} width={tag.width} height={tagHeight} />
      </g>
    </g>
  );
});
