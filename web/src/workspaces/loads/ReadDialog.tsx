import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { useFormContext } from "react-hook-form";
import type { CircuitLoads, Fact, LoadLine } from "../../api/client";
import { useRecord } from "../../api/record";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";

type How = "plug_in_meter" | "line_splitter" | "utility_kw" | "utility_turns";
type Values = {
  how: How;
  watts: string;
  amps: string;
  before: string;
  after: string;
  wh: string;
  turnsBefore: string;
  secondsBefore: string;
  turnsAfter: string;
  secondsAfter: string;
};
const NOTHING: Values = {
  how: "plug_in_meter",
  watts: "",
  amps: "",
  before: "",
  after: "",
  wh: "",
  turnsBefore: "",
  secondsBefore: "",
  turnsAfter: "",
  secondsAfter: "",
};
const { Amount, One } = fieldsOf<Values>();

const HOW: readonly (readonly [How, string])[] = [
  ["plug_in_meter", "a power meter that plugs in"],
  ["line_splitter", "a clamp on a line splitter at the outlet"],
  ["utility_kw", "the utility's meter, its kW before and after"],
  ["utility_turns", "the utility's meter, turns or flashes counted"],
];

type ReadingFact = Extract<Fact, { kind: "reading_taken" }>;

function factOf(load: string, values: Values): Fact {
  const target: ReadingFact["target"] = { of: "load", load };
  const number = (text: string) => Number(text);
  switch (values.how) {
    case "plug_in_meter":
      return {
        kind: "reading_taken",
        target,
        with: "plug_in_meter",
        value: { unit: "watts", watts: number(values.watts) },
      };
    case "line_splitter":
      return {
        kind: "reading_taken",
        target,
        with: "line_splitter",
        value: { unit: "amps", amps: number(values.amps) },
      };
    case "utility_kw":
      return {
        kind: "reading_taken",
        target,
        with: "utility_meter",
        value: { unit: "meter_kw", before: number(values.before), after: number(values.after) },
      };
    case "utility_turns":
      return {
        kind: "reading_taken",
        target,
        with: "utility_meter",
        value: {
          unit: "meter_turns",
          wh_each: number(values.wh),
          before: { count: number(values.turnsBefore), seconds: number(values.secondsBefore) },
          after: { count: number(values.turnsAfter), seconds: number(values.secondsAfter) },
        },
      };
  }
}

/** What one load takes, read without taking a cover off. */
export function ReadLoad({ home, load, onClose }: { home: string; load: LoadLine; onClose: () => void }) {
  const record = useRecord(home);
  return (
    <FormDialog
      title={`What the ${load.name} takes`}
      keep={`read load ${home} ${load.load}`}
      recorded={NOTHING}
      onSave={(values) => record([factOf(load.load, values)])}
      onClose={onClose}
      size="sm"
    >
      {(values) => (
        <>
          <One name="how" label="Read with" options={HOW} />
          {values.how === "plug_in_meter" && <Amount name="watts" label="It shows while it runs" unit="W" required />}
          {values.how === "line_splitter" && <Amount name="amps" label="It shows while it runs" unit="A" required />}
          {values.how === "utility_kw" && (
            <>
              <Typography variant="body2" color="text.secondary">
                Leave everything else as it is. Read the meter, switch the {load.name} on, wait half a minute, read
                again.
              </Typography>
              <Amount name="before" label="Before it is switched on" unit="kW" required />
              <Amount name="after" label="After" unit="kW" required />
            </>
          )}
          {values.how === "utility_turns" && (
            <>
              <Typography variant="body2" color="text.secondary">
                What one turn or flash is stands on the meter&rsquo;s face: Kh 7.2 is 7.2 Wh, 1000 imp/kWh is 1 Wh.
                Leave everything else as it is.
              </Typography>
              <Amount name="wh" label="One turn or flash is" unit="Wh" required />
              <Counted count="turnsBefore" seconds="secondsBefore" words="before it is switched on" />
              <Counted count="turnsAfter" seconds="secondsAfter" words="after" />
            </>
          )}
        </>
      )}
    </FormDialog>
  );
}

interface CountedProps {
  count: "turnsBefore" | "turnsAfter";
  seconds: "secondsBefore" | "secondsAfter";
  words: string;
}

/** Turns in a time, with a stopwatch that also counts: a tap at each turn. */
function Counted({ count, seconds, words }: CountedProps) {
  const form = useFormContext<Values>();
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

type CircuitValues = { amps: string; pole: string; sure: boolean };
const circuitFields = fieldsOf<CircuitValues>();

/** A clamp round the hot of a circuit: live work, for qualified hands. */
export function ReadCircuit({ home, circuit, running, onClose }: CircuitProps) {
  const record = useRecord(home);
  return (
    <FormDialog
      title={`A clamp on ${circuit.number}`}
      keep={`read circuit ${home} ${circuit.breaker}`}
      recorded={{ amps: "", pole: "1", sure: false }}
      onSave={({ amps, pole, sure }) =>
        record([
          {
            kind: "reading_taken",
            target: { of: "circuit", breaker: circuit.breaker, pole: Number(pole) },
            with: "clamp",
            value: { unit: "amps", amps: Number(amps) },
            running: [...running],
            ...(sure && { sure }),
          },
        ])
      }
      onClose={onClose}
    >
      <Alert severity="error" variant="outlined">
        With the cover off this is live work with arc-flash danger, for qualified people only. The line-side lugs stay
        live with the main off. Without the cover, read each load at its outlet instead.
      </Alert>
      <Typography variant="body2" color="text.secondary">
        The jaws go round one hot wire only. What is ticked as running is written down with it.
      </Typography>
      <circuitFields.Amount name="amps" label="The clamp shows" unit="A" required autoFocus />
      <circuitFields.Amount name="pole" label="Which pole of the breaker, from the top" whole required />
      <circuitFields.Tick name="sure" label="Read twice: it is so, even if it is far above the breaker" />
    </FormDialog>
  );
}

interface CircuitProps {
  home: string;
  circuit: CircuitLoads;
  running: readonly string[];
  onClose: () => void;
}
