import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { MeterShows } from "../../api/client";
import { readMeter, type MeterAt } from "../../api/queries";
import { useNotice } from "../../app/useNotice";
import { useMeasureLesson } from "./useMeasureLesson";
import { Display } from "./Display";

interface Props {
  at: MeterAt;
  /** Takes what it shows into the form. */
  onShown: (shows: MeterShows) => void;
}

/** In a made-up house that is to be measured: the meter, held there. Nothing in a real home. */
export function MeterOnScreen({ at, onShown }: Props) {
  const home = useMeasureLesson();
  const say = useNotice();
  const [read, setRead] = useState<{ at: string; shows: MeterShows } | null>(null);
  if (home === null) return null;
  const here = JSON.stringify(at);
  // Held elsewhere, or with something else running, it shows nothing until it is looked at again.
  const shows = read?.at === here ? read.shows : null;
  return (
    <Box sx={{ gridColumn: "1 / -1" }}>
      <Button
        variant="outlined"
        onClick={() => void readMeter(home, at).then((found) => setRead({ at: here, shows: found }), say.problem)}
      >
        Look at the meter
      </Button>
      {shows !== null && (
        <Box role="status" sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center", mt: 1 }}>
          <Display text={shows.words} />
          {(shows.amps ?? shows.volts ?? shows.at_breaker) != null && (
            <Button variant="contained" onClick={() => onShown(shows)}>
              Enter it
            </Button>
          )}
          {shows.caution != null && (
            <Typography variant="body2" color="error" sx={{ fontWeight: 700 }}>
              {shows.caution}
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}
