import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { PanelView } from "../api/client";
import { BladeShape, OpenShape } from "./BladeShape";
import { Handles, Housings, Mast, Patterns, SharedNeutrals } from "./Mast";
import { measures, type Measures } from "./measures";

interface Props {
  view: PanelView;
  /** What the picture shows, where it is not the post as it would be. */
  label?: string;
  /** Never smaller than its letters can be read. */
  least?: boolean;
  /** Drawn over it. */
  children?: (m: Measures) => ReactNode;
}

/** The post as it would be: a picture, nothing in it can be pressed. */
export function PostPreview({ view, label, least = false, children }: Props) {
  const m = measures(view, true);
  return (
    <Box sx={{ maxWidth: m.width * 1.15, ...(least && { minWidth: m.width }), mx: "auto" }}>
      <svg
        viewBox={`0 0 ${m.width} ${m.height}`}
        width="100%"
        role="img"
        aria-label={label ?? `${view.panel.name} as it would be: ${view.breakers.length} breakers`}
      >
        <Patterns />
        <Mast view={view} m={m} />
        <SharedNeutrals view={view} m={m} />
        {view.open.map((open) => (
          <OpenShape key={open.number} open={open} m={m} selected={false} />
        ))}
        {view.breakers.map((breaker) => (
          <g key={breaker.breaker} data-preview={breaker.number}>
            <BladeShape breaker={breaker} m={m} selected={false} worry={null} />
            <Handles breaker={breaker} m={m} />
          </g>
        ))}
        <Housings view={view} m={m} />
        {children?.(m)}
      </svg>
    </Box>
  );
}
