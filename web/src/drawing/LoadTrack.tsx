import Box from "@mui/material/Box";
import type { CircuitLoads } from "../api/client";
import { tone } from "../app/theme";
import { amps } from "../parts/words";

/** The scale ends at twice what a circuit may carry. */
const END = 200;
const at = (percent: number): string => `${(Math.min(percent, END) / END) * 100}%`;

/** All that the track shows, as one sentence. */
function spoken(circuit: CircuitLoads): string {
  if (circuit.stands === "nothing") return "nothing entered";
  const read = circuit.measured == null ? "" : `, ${amps(circuit.measured.amps)} measured`;
  return `${amps(circuit.expected)} A expected, ${amps(circuit.connected)} all on at once${read}, of ${amps(circuit.limit)} A`;
}

/**
 * One circuit on the scale that all share: percent of the smaller of breaker and wire. A bar to what is expected, dashed to what
 * counts with long running loads at 125 %, a whisker to everything at once, a dot for what was measured.
 */
export function LoadTrack({ circuit, tall = false }: { circuit: CircuitLoads; tall?: boolean }) {
  const share = (value: number) => (100 * value) / circuit.limit;
  const expected = share(circuit.expected);
  const inside = Math.min(expected, 100);
  const height = tall ? 26 : 12;
  const middle = { position: "absolute", top: "50%", transform: "translateY(-50%)" } as const;
  return (
    <Box
      role="img"
      aria-label={spoken(circuit)}
      sx={{
        position: "relative",
        height: tall ? 34 : 28,
        bgcolor: tone("card"),
        backgroundImage: `linear-gradient(${tone("rail")}, ${tone("rail")})`,
        backgroundSize: "50% 100%",
        backgroundPosition: "right",
        backgroundRepeat: "no-repeat",
      }}
    >
      {circuit.connected > circuit.expected && (
        <Box
          sx={{
            ...middle,
            left: at(expected),
            width: `calc(${at(share(circuit.connected))} - ${at(expected)})`,
            height: 12,
            borderRight: `2px solid ${tone("soft")}`,
            backgroundImage: `linear-gradient(${tone("soft")}, ${tone("soft")})`,
            backgroundSize: "100% 2px",
            backgroundPosition: "center",
            backgroundRepeat: "no-repeat",
          }}
        />
      )}
      {circuit.counted > circuit.expected && (
        <Box
          sx={{
            ...middle,
            left: at(expected),
            width: `calc(${at(share(circuit.counted))} - ${at(expected)})`,
            height,
            border: `2px dashed ${tone("pine")}`,
            borderLeft: 0,
          }}
        />
      )}
      <Box sx={{ ...middle, left: 0, width: at(inside), height, bgcolor: tone("pine") }} />
      {expected > 100 && (
        <Box
          sx={{
            ...middle,
            left: at(100),
            width: `calc(${at(expected)} - ${at(100)})`,
            height: height + 6,
            bgcolor: tone("ink"),
          }}
        />
      )}
      <Box sx={{ position: "absolute", top: 0, bottom: 0, left: at(80), borderLeft: `1px dashed ${tone("ink")}` }} />
      <Box sx={{ position: "absolute", top: 0, bottom: 0, left: at(100), borderLeft: `2px solid ${tone("ink")}` }} />
      {circuit.measured != null && (
        <Box
          sx={{
            ...middle,
            left: at(share(circuit.measured.amps)),
            width: 12,
            height: 12,
            ml: "-6px",
            borderRadius: "50%",
            bgcolor: tone("lit"),
            border: `2px solid ${tone("ink")}`,
          }}
        />
      )}
    </Box>
  );
}

/** What the marks of a track mean. */
export function TrackKey() {
  const mark = { display: "inline-block", verticalAlign: "middle", mr: 1 } as const;
  const words = { whiteSpace: "nowrap", fontSize: "0.9rem" } as const;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2.5, rowGap: 0.5, mb: 1.5, color: "text.secondary" }}>
      <Box sx={words}>
        <Box sx={{ ...mark, width: 26, height: 12, bgcolor: tone("pine") }} />
        expected
      </Box>
      <Box sx={words}>
        <Box sx={{ ...mark, width: 22, height: 12, border: `2px dashed ${tone("pine")}` }} />3 hours or more: counts 125
        %
      </Box>
      <Box sx={words}>
        <Box sx={{ ...mark, width: 24, height: 12, borderRight: `2px solid ${tone("soft")}`, position: "relative" }}>
          <Box sx={{ position: "absolute", top: 5, left: 0, right: 0, height: "2px", bgcolor: tone("soft") }} />
        </Box>
        all on at once
      </Box>
      <Box sx={words}>
        <Box
          sx={{
            ...mark,
            width: 12,
            height: 12,
            borderRadius: "50%",
            bgcolor: tone("lit"),
            border: `2px solid ${tone("ink")}`,
          }}
        />
        measured
      </Box>
    </Box>
  );
}
