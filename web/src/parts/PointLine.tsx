import Box from "@mui/material/Box";
import type { HomeOverview, KnownPoint } from "../api/client";
import { tone } from "../app/theme";
import { VerdictTag } from "../drawing/Tag";

interface Props {
  point: KnownPoint;
  home: HomeOverview;
  onOpen: () => void;
  withRoom?: boolean;
}

/** A point on a line of its own, with its tag; opens what is known of it. */
export function PointLine({ point, home, onOpen, withRoom = true }: Props) {
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
            {point.kind}
            {point.volts === 240 && ", 240 V"}
          </Box>
        </Box>
        <VerdictTag verdict={point.known} home={home} />
      </Box>
    </Box>
  );
}
