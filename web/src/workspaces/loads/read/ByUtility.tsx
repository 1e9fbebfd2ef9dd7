import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { useFormContext } from "react-hook-form";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { UtilityOnScreen } from "../../practice/UtilityOnScreen";
import type { UtilityValues } from "./utility";

const { Amount } = fieldsOf<UtilityValues>();

interface ByUtilityProps {
  how: "utility_kw" | "utility_turns";
  words: string;
  /** The loads that are switched on for it. */
  running: readonly string[];
  /** The breaker that is off before. */
  off?: string;
}

/** The utility's meter before and after. */
export function ByUtility({ how, words, running, off = "" }: ByUtilityProps) {
  const form = useFormContext<UtilityValues>();
  return (
    <>
      <Typography variant="body2" color="text.secondary">
        {words}
      </Typography>
      <UtilityOnScreen
        running={running}
        off={off}
        onRead={(when, kw) => form.setValue(when, String(kw), { shouldDirty: true })}
      />
      {how === "utility_kw" ? (
        <>
          <Amount name="before" label="Before it is switched on" unit="kW" required />
          <Amount name="after" label="After" unit="kW" required />
        </>
      ) : (
        <>
          <Typography variant="body2" color="text.secondary">
            What one turn or flash is stands on the meter&rsquo;s face: Kh 7.2 is 7.2 Wh, 1000 imp/kWh is 1 Wh.
          </Typography>
          <Amount name="wh" label="One turn or flash is" unit="Wh" required />
          <Counted count="turnsBefore" seconds="secondsBefore" words="before it is switched on" />
          <Counted count="turnsAfter" seconds="secondsAfter" words="after" />
        </>
      )}
    </>
  );
}

interface CountedProps {
  count: "turnsBefore" | "turnsAfter";
  seconds: "secondsBefore" | "secondsAfter";
  words: string;
}

/** Turns in a time, with a stopwatch that also counts: a tap at each turn. */
function Counted({ count, seconds, words }: CountedProps) {
  const form = useFormContext<UtilityValues>();
  const [begun, setBegun] = useState<number | null>(null);
  const [taps, setTaps] = useState(0);
  const [shown, setShown] = useState(0);
  useEffect(() => {
    if (begun === null) return undefined;
    const tick = setInterval(() => setShown(Math.round((performance.now() - begun) / 1000)), 500);
    return () => clearInterval(tick);
  }, [begun]);
  const tap = () => {
    const now = performance.now();
    if (begun === null) {
      setBegun(now);
      setTaps(0);
      return;
    }
    setTaps(taps + 1);
    form.setValue(count, String(taps + 1), { shouldDirty: true });
    form.setValue(seconds, ((now - begun) / 1000).toFixed(1), { shouldDirty: true });
  };
  return (
    <Stack spacing={1}>
      <Stack direction="row" spacing={1} sx={{ alignItems: "center" }}>
        <Button variant="outlined" onClick={tap} sx={{ minHeight: 56 }}>
          {begun === null ? "Start at a turn" : `Turn ${taps + 1}`}
        </Button>
        {begun !== null && (
          <>
            <Typography>{shown} s</Typography>
            <Button
              color="inherit"
              onClick={() => {
                setBegun(null);
                setShown(0);
              }}
            >
              Stop
            </Button>
          </>
        )}
      </Stack>
      <Amount name={count} label={`Turns or flashes ${words}`} required />
      <Amount name={seconds} label={`In so many seconds ${words}`} unit="s" required />
    </Stack>
  );
}
