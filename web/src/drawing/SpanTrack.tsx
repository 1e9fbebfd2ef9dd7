import Box from "@mui/material/Box";
import { tone } from "../app/theme";

interface Props {
  between: readonly number[];
  limit: number;
  settled: boolean;
}

/** Between which currents a decision lies, on a scale whose middle is the limit: a bar where it is settled, open ends where not. */
export function SpanTrack({ between, limit, settled }: Props) {
  const at = (amps: number) => Math.min(100, (50 * amps) / limit);
  const [low = 0, high = 0] = between;
  return (
    <Box aria-hidden sx={{ position: "relative", height: 18, bgcolor: tone("rail") }}>
      <Box
        sx={{
          position: "absolute",
          top: 3,
          bottom: 3,
          left: `${at(low)}%`,
          width: `max(4px, ${at(high) - at(low)}%)`,
          ...(settled
            ? { bgcolor: tone("pine") }
            : {
                borderLeft: `3px solid ${tone("ink")}`,
                borderRight: `3px solid ${tone("ink")}`,
                bgcolor: tone("paper"),
              }),
        }}
      />
      <Box sx={{ position: "absolute", top: 0, bottom: 0, left: "40%", borderLeft: `1px dashed ${tone("ink")}` }} />
      <Box sx={{ position: "absolute", top: -2, bottom: -2, left: "50%", borderLeft: `2px solid ${tone("ink")}` }} />
    </Box>
  );
}
