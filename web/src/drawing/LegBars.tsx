import Box from "@mui/material/Box";
import type { PanelLegs } from "../api/client";
import { tone } from "../app/theme";
import { amps } from "../parts/words";

/** The legs of a panel as bars up to their rating, and the neutral below them. Leg B is striped, C dotted. */
export function LegBars({ legs }: { legs: PanelLegs }) {
  const end = Math.max(legs.rating ?? 0, ...legs.legs.map((leg) => leg.expected)) || 1;
  const rows = [...legs.legs.map((leg) => ({ name: leg.leg, amps: leg.expected })), { name: "N", amps: legs.neutral }];
  return (
    <Box
      role="img"
      aria-label={`${legs.name}: ${rows.map((row) => `${row.name === "N" ? "neutral" : `leg ${row.name}`} ${amps(row.amps)} A`).join(", ")}`}
      sx={{ display: "grid", gridTemplateColumns: "20px minmax(0, 1fr) 64px", rowGap: 0.5, columnGap: 1, my: 1 }}
    >
      {rows.map((row) => (
        <Box key={row.name} sx={{ display: "contents" }}>
          <Box sx={{ fontWeight: 700 }}>{row.name}</Box>
          <Box sx={{ position: "relative", bgcolor: tone("rail"), height: 20, alignSelf: "center" }}>
            <Box
              sx={{
                position: "absolute",
                inset: 0,
                right: "auto",
                width: `${(100 * row.amps) / end}%`,
                ...(row.name === "N"
                  ? { border: `2px solid ${tone("soft")}` }
                  : {
                      bgcolor: tone("pine"),
                      backgroundImage:
                        row.name === "B"
                          ? "repeating-linear-gradient(135deg, transparent 0 6px, #0000003d 6px 9px)"
                          : row.name === "C"
                            ? "radial-gradient(#0000004d 2px, transparent 2.5px)"
                            : "none",
                      ...(row.name === "C" && { backgroundSize: "9px 9px" }),
                    }),
              }}
            />
            {row.name !== "N" && legs.rating != null && (
              <Box
                sx={{
                  position: "absolute",
                  top: 0,
                  bottom: 0,
                  left: `${(100 * legs.rating) / end}%`,
                  ml: "-2px",
                  borderLeft: `2px solid ${tone("ink")}`,
                }}
              />
            )}
          </Box>
          <Box sx={{ textAlign: "right", fontWeight: row.name === "N" ? 400 : 700 }}>{amps(row.amps)} A</Box>
        </Box>
      ))}
    </Box>
  );
}
