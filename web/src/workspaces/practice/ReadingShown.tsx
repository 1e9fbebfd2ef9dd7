import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Reading } from "../../api/client";
import { tone } from "../../app/theme";
import { Display } from "./Display";

/** What an instrument shows: drawn, and in words. What it means is for the person to say. */
export function ReadingShown({ reading }: { reading: Reading }) {
  return (
    <Box sx={{ mt: 1.5 }} role="status">
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center" }}>
        {reading.lamps && <TesterFace lamps={reading.lamps} />}
        <Box aria-hidden sx={{ display: "flex", gap: 1.5 }}>
          {reading.volts != null && <Display text={`${reading.volts.toFixed(1)} V`} />}
          {reading.amps != null && <Display text={`${reading.amps.toFixed(2)} A`} />}
        </Box>
        {(reading.runs != null || reading.glows != null) && <Bulb on={reading.runs ?? reading.glows ?? false} />}
        <Typography sx={{ fontWeight: 700 }} data-testid="reading">
          {reading.words}
        </Typography>
      </Box>
      {reading.tone.length > 0 && <Loudness heard={reading.tone} />}
      {reading.caution && (
        <Typography variant="body2" color="error" sx={{ mt: 1, fontWeight: 700 }}>
          {reading.caution}
        </Typography>
      )}
    </Box>
  );
}

/** Three lamps under each other in a plug. */
function TesterFace({ lamps }: { lamps: boolean[] }) {
  return (
    <svg width="44" height="64" viewBox="0 0 44 64" aria-hidden="true">
      <path d="M6 2h32l4 12v46H2V14z" fill={tone("card")} stroke={tone("ink")} strokeWidth="2" />
      {lamps.map((on, n) => (
        <rect
          key={n}
          x="12"
          y={16 + n * 14}
          width="20"
          height="8"
          fill={on ? tone("lit") : "none"}
          stroke={tone("ink")}
          strokeWidth="1.5"
        />
      ))}
    </svg>
  );
}

function Bulb({ on }: { on: boolean }) {
  return (
    <svg width="36" height="48" viewBox="0 0 36 48" aria-hidden="true">
      <path
        d="M18 3c9 0 14 6 14 14 0 6-4 9-6 15H10C8 26 4 23 4 17 4 9 9 3 18 3z"
        fill={on ? tone("lit") : tone("dark")}
        stroke={tone("ink")}
        strokeWidth="2"
      />
      <path d="M12 36h12M13 41h10" stroke={tone("ink")} strokeWidth="3" />
    </svg>
  );
}

/** How loud the tone is, breaker by breaker; the loudest may be the neighbor. */
function Loudness({ heard }: { heard: Reading["tone"] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
      {heard.slice(0, 8).map((at) => (
        <Box component="li" key={at.breaker} sx={{ display: "flex", gap: 1, alignItems: "center", py: 0.25 }}>
          <Box component="span" sx={{ width: 56, fontWeight: 700 }}>
            {at.number}
          </Box>
          <Box
            aria-hidden="true"
            sx={{ height: 12, width: `${at.strength * 9}%`, maxWidth: "70%", bgcolor: tone("pine") }}
          />
          <Box component="span" sx={{ whiteSpace: "nowrap" }}>
            {at.strength} of 10
          </Box>
        </Box>
      ))}
    </Box>
  );
}
