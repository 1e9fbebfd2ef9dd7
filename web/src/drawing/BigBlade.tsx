import Box from "@mui/material/Box";
import type { Handle } from "../api/client";
import { tone } from "../app/theme";

/** The breaker to find at the panel: its number as large as can be, pointing as it sits. */
export function BigBlade({ handle }: { handle: Handle }) {
  const left = handle.side === "left";
  const shape = left
    ? "polygon(28px 0, 100% 0, 100% 100%, 28px 100%, 0 50%)"
    : "polygon(0 0, calc(100% - 28px) 0, 100% 50%, calc(100% - 28px) 100%, 0 100%)";
  return (
    <Box
      data-testid="big-blade"
      sx={{
        bgcolor: tone("dark"),
        color: tone("onDark"),
        clipPath: shape,
        display: "flex",
        flexDirection: left ? "row-reverse" : "row",
        alignItems: "center",
        gap: 2,
        pl: left ? 5 : 2,
        pr: left ? 2 : 5,
        py: 1.25,
        mb: 1,
      }}
    >
      <Box
        component="span"
        sx={{ fontFamily: "Overpass Variable", fontWeight: 800, fontSize: "2.9rem", lineHeight: 1.1 }}
      >
        {handle.number}
      </Box>
      <Box component="span" sx={{ flex: 1, fontSize: "0.95rem", lineHeight: 1.3 }}>
        {handle.place}
        <br />
        {handle.amps} A{handle.claim != null && ` · “${handle.claim}”`}
      </Box>
    </Box>
  );
}
