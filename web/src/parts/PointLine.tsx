import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import type { HomeOverview, KnownPoint } from "../api/client";
import { tone } from "../app/theme";
import { VerdictTag } from "../drawing/Tag";
import { kindAfter } from "./words";

interface Props {
  point: KnownPoint;
  home: HomeOverview;
  onOpen: () => void;
  withRoom?: boolean;
  /** What is to be said below it. */
  children?: ReactNode;
}

/** A point on a line of its own, with its tag; opens what is known of it. */
export function PointLine({ point, home, onOpen, withRoom = true, children }: Props) {
  const room = home.rooms.find((r) => r.id === point.room)?.name ?? "";
  return (
    <Box component="li" sx={{ borderBottom: `1px solid ${tone("rule")}` }}>
      <Box
        component="button"
        type="button"
        onClick={onOpen}
        sx={{
          font: "inherit",
          color: "inherit",
          background: "none",
          border: 0,
          width: "100%",
          textAlign: "left",
          display: "flex",
          alignItems: "center",
          gap: 1,
          py: 0.9,
          px: 0,
          minHeight: 44,
          cursor: "pointer",
        }}
      >
        <Box component="span" sx={{ flex: 1, minWidth: 0 }}>
          <strong>
            {withRoom && `${room}, `}
            {point.name}
          </strong>{" "}
          <Box component="span" sx={{ color: "text.secondary" }}>
            {kindAfter(point.name, point.kind)}
            {point.volts === 240 && ", 240 V"}
          </Box>
        </Box>
        <VerdictTag verdict={point.known} home={home} />
      </Box>
      {children}
    </Box>
  );
}
