import Box from "@mui/material/Box";
import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { BreakerView, Place, PanelView } from "../api/client";
import { BladeShape, OpenShape } from "./BladeShape";
import { Handles, Housings, Mast, Patterns, SharedNeutrals } from "./Mast";
import { measures, outline } from "./measures";
import { MovingLayer } from "./Moving";
import { placeOfBlade, placeOfOpen, type PostPlace } from "./place";
import { PostButton } from "./PostButton";
import { said, spoken } from "./spoken";
import { spotAt, spotsOf, type Spot } from "./spots";

interface Stop {
  place: PostPlace;
  number: string;
  left: boolean;
  top: number;
}

/** A breaker being moved: the places it may go to, and what becomes of it. */
export interface Moving {
  breaker: string;
  places: Place[];
  onDrop: (place: Place) => void;
  onLeave: () => void;
}

interface Props {
  view: PanelView;
  selected: PostPlace | null;
  onSelect: (place: PostPlace) => void;
  narrow: boolean;
  /** The gravest finding about a breaker. */
  worry?: (breaker: string) => "danger" | "fault" | null;
  moving?: Moving | null;
  /** A blade was picked up: with the pointer or the key m. */
  onPick?: (breaker: string) => void;
  zoom?: number;
}

/** The panel as a fingerpost: the bus is the post, each breaker a blade that points as it sits. */
export function Fingerpost({ view, selected, onSelect, narrow, worry, moving, onPick, zoom = 1 }: Props) {
  const root = useRef<SVGSVGElement>(null);
  const typed = useRef({ text: "", since: 0 });
  const drag = useRef<{ breaker: string; x: number; y: number; far: boolean } | null>(null);
  const [target, setTarget] = useState<Spot | undefined>(undefined);
  const m = measures(view, narrow);
  const stops: Stop[] = [
    ...view.breakers.map((b) => ({
      place: placeOfBlade(b),
      number: b.number,
      left: b.side === "left",
      top: b.parts[0]?.top ?? 0,
    })),
    ...view.open.map((o) => ({
      place: placeOfOpen(o),
      number: o.number,
      left: o.side === "left",
      top: o.part.top,
    })),
  ].sort((a, b) => Number(b.left) - Number(a.left) || a.top - b.top);
  const current = stops.find((s) => s.place === selected) ?? stops[0];
  const spots = moving ? spotsOf(view, moving.places) : [];
  const shown = moving ? (target ?? spots.find((spot) => spot.place.here)) : undefined;

  const go = (stop: Stop | undefined) => {
    if (!stop) return;
    onSelect(stop.place);
    root.current?.querySelector<SVGElement>(`[data-place="${stop.place}"]`)?.focus();
  };
  const leave = () => {
    setTarget(undefined);
    moving?.onLeave();
  };
  const drop = (spot: Spot | undefined) => {
    if (!moving) return;
    setTarget(undefined);
    if (!spot || spot.place.here) moving.onLeave();
    else moving.onDrop(spot.place);
  };

  const moveKey = (event: KeyboardEvent) => {
    const column = spots
      .filter((spot) => spot.side === (shown?.side ?? "left"))
      .sort((a, b) => a.top - b.top || b.height - a.height);
    const at = shown ? column.findIndex((spot) => spot.place.number === shown.place.number) : -1;
    const across = (side: "left" | "right") =>
      spots
        .filter((spot) => spot.side === side && spot.height === (shown?.height ?? 2))
        .sort((a, b) => Math.abs(a.top - (shown?.top ?? 0)) - Math.abs(b.top - (shown?.top ?? 0)))[0];
    if (event.key === "Escape") leave();
    else if (event.key === "Enter" || event.key === " ") drop(shown);
    else if (event.key === "ArrowDown") setTarget(column[Math.min(at + 1, column.length - 1)]);
    else if (event.key === "ArrowUp") setTarget(column[Math.max(at - 1, 0)]);
    else if (event.key === "ArrowLeft") setTarget(across("left") ?? shown);
    else if (event.key === "ArrowRight") setTarget(across("right") ?? shown);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const key = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (moving) {
      moveKey(event);
      return;
    }
    if (!current) return;
    const column = stops.filter((s) => s.left === current.left);
    const at = column.indexOf(current);
    const across = () =>
      stops
        .filter((s) => s.left !== current.left)
        .sort((a, b) => Math.abs(a.top - current.top) - Math.abs(b.top - current.top))[0];
    if (/^[0-9]$/.test(event.key)) {
      const before = event.timeStamp - typed.current.since < 900 ? typed.current.text : "";
      typed.current = { text: before + event.key, since: event.timeStamp };
      go(stops.find((s) => s.number.split("-").some((part) => part.replace(/[ab]$/, "") === typed.current.text)));
    } else if (event.key === "ArrowDown") go(column[at + 1]);
    else if (event.key === "ArrowUp") go(column[at - 1]);
    else if (event.key === "ArrowLeft" && !current.left) go(across());
    else if (event.key === "ArrowRight" && current.left) go(across());
    else if (event.key === "m" && selected?.startsWith("b:")) onPick?.(selected.slice(2));
    else return;
    event.preventDefault();
  };

  /** Where the pointer is, in the drawing's own units. */
  const at = (event: PointerEvent) => {
    const box = root.current?.getBoundingClientRect();
    if (!box) return { x: 0, y: 0 };
    return {
      x: ((event.clientX - box.left) / box.width) * m.width,
      y: ((event.clientY - box.top) / box.height) * m.height,
    };
  };
  const pointer = {
    onPointerMove: (event: PointerEvent) => {
      const held = drag.current;
      const { x, y } = at(event);
      if (held && !held.far && Math.hypot(x - held.x, y - held.y) > 9) {
        held.far = true;
        root.current?.setPointerCapture(event.pointerId);
        onPick?.(held.breaker);
      }
      if (moving && (held?.far || event.pointerType === "mouse")) setTarget(spotAt(spots, x, y, m));
    },
    onPointerUp: (event: PointerEvent) => {
      const held = drag.current;
      drag.current = null;
      const { x, y } = at(event);
      if (moving && (held?.far || !held)) drop(spotAt(spots, x, y, m));
    },
    onPointerCancel: () => {
      // A finger that scrolls the post to a far place has not let the breaker go.
      if (drag.current?.far) leave();
      drag.current = null;
    },
  };
  const hold = (breaker: BreakerView) => (event: PointerEvent) => {
    // A finger scrolls the post; it moves a breaker from the pane's button on.
    if (!moving && onPick && event.pointerType === "mouse" && event.button === 0) {
      drag.current = { breaker: breaker.breaker, ...at(event), far: false };
    }
  };

  const spot = (place: PostPlace) => ({
    place,
    tabbed: current?.place === place,
    pressed: selected === place,
    onSelect: (chosen: PostPlace) => {
      if (!moving) onSelect(chosen);
    },
  });

  return (
    <Box sx={{ overflowX: zoom > 1 ? "auto" : "visible" }}>
      {moving && (
        <Box
          role="status"
          data-testid="move-status"
          sx={{
            typography: "body2",
            fontWeight: 700,
            minHeight: "3em",
            position: "sticky",
            top: 64,
            zIndex: 1,
            bgcolor: "background.default",
          }}
        >
          {shown && said(shown.place)}
        </Box>
      )}
      <Box
        sx={{
          maxWidth: m.width * (narrow ? 1.15 : 1.02) * zoom,
          width: zoom > 1 ? `${zoom * 100}%` : "auto",
          mx: "auto",
        }}
      >
        <svg
          ref={root}
          viewBox={`0 0 ${m.width} ${m.height}`}
          width="100%"
          role="group"
          aria-label={`Fingerpost of ${view.panel.name}: ${view.breakers.length} breakers, ${view.panel.spaces} spaces`}
          onKeyDown={key}
          data-testid="fingerpost"
          data-moving={moving ? "" : undefined}
          style={{ cursor: moving ? "grabbing" : undefined, touchAction: moving ? "pan-y" : undefined }}
          {...pointer}
        >
          <Patterns />
          <Mast view={view} m={m} />
          <SharedNeutrals view={view} m={m} />
          {view.open.map((open) => {
            const place = placeOfOpen(open);
            const shape = <OpenShape open={open} m={m} selected={selected === place} />;
            const filler = open.filler === false ? ", no filler" : open.filler ? ", filler" : "";
            return (
              <PostButton
                key={place}
                {...spot(place)}
                label={`Space ${open.number}, open${filler}`}
                path={outline(open.part, open.side, m).path}
                shape={shape}
              />
            );
          })}
          {view.breakers.map((breaker) => {
            const place = placeOfBlade(breaker);
            const grave = worry?.(breaker.breaker) ?? null;
            return (
              <PostButton
                key={place}
                {...spot(place)}
                label={spoken(breaker, grave)}
                path={breaker.parts.map((part) => outline(part, breaker.side, m).path).join(" ")}
                shape={<BladeShape breaker={breaker} m={m} selected={selected === place} worry={grave} />}
                onPointerDown={hold(breaker)}
              />
            );
          })}
          <Housings view={view} m={m} />
          {view.breakers.map((breaker) => (
            <Handles key={breaker.breaker} breaker={breaker} m={m} />
          ))}
          {moving && <MovingLayer spots={spots} target={shown} m={m} />}
        </svg>
      </Box>
    </Box>
  );
}
