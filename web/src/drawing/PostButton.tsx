import type { PointerEvent, ReactNode } from "react";
import type { PostPlace } from "./place";

interface Props {
  place: PostPlace;
  label: string;
  tabbed: boolean;
  pressed: boolean;
  onSelect: (place: PostPlace) => void;
  onPointerDown?: (event: PointerEvent) => void;
  path: string;
  shape: ReactNode;
}

/** A shape with a button of its outline over it: the name is spoken, the drawn texts are not read twice. */
export function PostButton({ place, label, tabbed, pressed, onSelect, onPointerDown, path, shape }: Props) {
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
        onPointerDown={onPointerDown}
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
