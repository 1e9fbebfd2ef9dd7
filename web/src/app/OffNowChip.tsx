import Box from "@mui/material/Box";
import type { HomeOverview } from "../api/client";

/** Which breakers are off now; always in sight, spoken when it changes. */
export function OffNowChip({ off }: { off: HomeOverview["off_now"] }) {
  const switched = off.filter((b) => b.state === "off").map((b) => b.number);
  const tripped = off.filter((b) => b.state === "tripped").map((b) => b.number);
  const words = [
    switched.length > 0 ? `OFF NOW: ${switched.join(", ")}` : "",
    tripped.length > 0 ? `TRIPPED: ${tripped.join(", ")}` : "",
  ].filter(Boolean);
  const any = words.length > 0;
  return (
    <Box
      role="status"
      data-testid="off-now"
      sx={{
        fontFamily: "Overpass Variable",
        fontWeight: 700,
        fontSize: { xs: "0.78rem", md: "0.85rem" },
        lineHeight: 1.2,
        px: 1.25,
        py: 0.9,
        borderRadius: 1,
        maxWidth: { xs: 150, sm: 360 },
        bgcolor: any ? "#c24a18" : "transparent",
        color: "#fff",
        border: any ? "2px solid #c24a18" : "2px solid #ffffff66",
      }}
    >
      {any ? words.join(", ") : "ALL ON"}
    </Box>
  );
}
