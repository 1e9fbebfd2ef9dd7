import Box from "@mui/material/Box";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import type { HomeOverview } from "../api/client";

/** Which breakers are off now; always in sight, in one line, spoken when it changes. */
export function OffNowChip({ off }: { off: HomeOverview["off_now"] }) {
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const switched = off.filter((b) => b.state === "off").map((b) => b.number);
  const tripped = off.filter((b) => b.state === "tripped").map((b) => b.number);
  const parts = (numbers: (words: string[]) => string): string[] => [
    ...(switched.length > 0 ? [`OFF: ${numbers(switched)}`] : []),
    ...(tripped.length > 0 ? [`TRIPPED: ${numbers(tripped)}`] : []),
  ];
  const full = parts((numbers) => numbers.join(", "));
  const all = full.join(", ");
  // Where not all numbers fit, it says how many; the panel shows which.
  const fits = all.length <= (wide ? 46 : 24);
  const shown = fits
    ? full
    : parts((numbers) => (numbers.length > 1 ? `${numbers.length} breakers` : String(numbers[0])));
  const any = off.length > 0;
  return (
    <Box
      role="status"
      data-testid="off-now"
      data-off={off.map((b) => b.number).join(" ")}
      title={any ? all : undefined}
      aria-label={any ? all : "All on"}
      sx={{
        fontFamily: "Overpass Variable",
        fontWeight: 700,
        fontSize: "0.85rem",
        lineHeight: 1.2,
        whiteSpace: "nowrap",
        flexShrink: 0,
        px: 1.25,
        py: 0.9,
        borderRadius: 1,
        bgcolor: any ? "#c24a18" : "transparent",
        color: "#fff",
        border: any ? "2px solid #c24a18" : "2px solid #ffffff66",
      }}
    >
      {any
        ? shown.map((part, n) => (
            <Box
              component="span"
              key={part}
              sx={n > 0 ? { ml: 0.75, pl: 0.75, borderLeft: "2px solid #ffffff99" } : undefined}
            >
              {part}
            </Box>
          ))
        : "ALL ON"}
    </Box>
  );
}
