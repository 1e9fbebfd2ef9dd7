import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { JobShows } from "../../api/client";
import { readAtJob } from "../../api/queries";
import { useNotice } from "../../app/useNotice";
import { Display } from "./Display";

interface Props {
  home: string;
  job: string;
  /** A meter or a torque driver is read; else somebody looks. */
  meter: boolean;
}

/** In a made-up panel: what the meter shows, or what there is to be seen. What it means is for the person to say. */
export function AtTheJob({ home, job, meter }: Props) {
  const [shows, setShows] = useState<JobShows | null>(null);
  const say = useNotice();
  return (
    <Box
      role="group"
      aria-label="Practice: in place of a real panel"
      sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center", mb: 1.5 }}
    >
      <Button
        variant="outlined"
        color="inherit"
        onClick={() => void readAtJob(home, job).then(setShows, say.problem)}
        sx={{ borderStyle: "dashed" }}
      >
        {meter ? "Read it" : "Look"}
      </Button>
      <Box role="status">
        {shows !== null &&
          (shows.value != null ? (
            <Display text={shows.words} />
          ) : (
            <Typography sx={{ fontWeight: 700 }} data-testid="seen-at-job">
              {shows.words}
            </Typography>
          ))}
      </Box>
      {shows === null && (
        <Typography variant="body2" color="text.secondary">
          Practice: on the screen in place of a real panel
        </Typography>
      )}
    </Box>
  );
}
