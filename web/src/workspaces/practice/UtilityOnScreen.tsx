import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useUtilityMeter } from "../../api/queries";
import { tone } from "../../app/theme";
import { useMeasureLesson } from "./useMeasureLesson";
import { Display } from "./Display";

interface Props {
  /** The loads that are switched on for the reading. */
  running: readonly string[];
  /** The breaker that is off before. */
  off: string;
  /** Takes kilowatts into the form. */
  onRead: (when: "before" | "after", kw: number) => void;
}

/** In a made-up house that is to be measured: the utility's meter, second by second. Nothing in a real home. */
export function UtilityOnScreen(props: Props) {
  const home = useMeasureLesson();
  return home === null ? null : <Meter home={home} {...props} />;
}

function Meter({ home, running, off, onRead }: Props & { home: string }) {
  const [on, setOn] = useState(false);
  const shows = useUtilityMeter(home, on ? running.join(",") : "", on ? "" : off);
  return (
    <Stack spacing={1} sx={{ gridColumn: "1 / -1" }} data-testid="utility" data-on={on}>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap", alignItems: "center" }}>
        <Display text={shows === null ? "…" : `${shows.kw.toFixed(2)} kW`} />
        <Box>
          <Box
            aria-hidden
            sx={{
              display: "inline-block",
              width: 14,
              height: 14,
              mr: 1,
              borderRadius: "50%",
              border: `2px solid ${tone("ink")}`,
              bgcolor: (shows?.flashes ?? 0) % 2 === 1 ? tone("lit") : "transparent",
            }}
          />
          {shows === null ? "" : `${shows.flashes} flashes of 1 Wh in ${shows.second} s`}
        </Box>
      </Stack>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap" }}>
        <Button variant="outlined" aria-pressed={on} onClick={() => setOn(!on)}>
          {on ? "Switch it off again" : "Switch it on"}
        </Button>
        <Button
          variant="contained"
          disabled={shows === null}
          onClick={() => shows !== null && onRead(on ? "after" : "before", shows.kw)}
        >
          {on ? "Enter as after" : "Enter as before"}
        </Button>
      </Stack>
      <Typography variant="body2" color="text.secondary">
        Something in the house comes and goes by itself. Where the display jumps meanwhile, read both again.
      </Typography>
    </Stack>
  );
}
