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

type How = "plug_in_meter" | "plug_in_amps" | "line_splitter" | "utility_kw" | "utility_turns";
type UtilityValues = {
  before: string;
  after: string;
  wh: string;
  turnsBefore: string;
  secondsBefore: string;
  turnsAfter: string;
  secondsAfter: string;
};
type Values = UtilityValues & { how: How; watts: string; amps: string };
const NOTHING_OF_UTILITY: UtilityValues = {
  before: "",
  after: "",
  wh: "",
  turnsBefore: "",
  secondsBefore: "",
  turnsAfter: "",
  secondsAfter: "",
};
const NOTHING: Values = { how: "plug_in_meter", watts: "", amps: "", ...NOTHING_OF_UTILITY };
const { Amount, One } = fieldsOf<Values>();

const HOW: readonly (readonly [How, string])[] = [
  ["plug_in_meter", "a power meter that plugs in, its watts"],
  ["plug_in_amps", "a power meter that plugs in, its amperes"],
  ["line_splitter", "a clamp on a line splitter at the outlet"],
  ["utility_kw", "the utility's meter, its kW before and after"],
  ["utility_turns", "the utility's meter, turns or flashes counted"],
];

type ReadingFact = Extract<Fact, { kind: "reading_taken" }>;

/** What the utility's meter showed, by its kilowatts or by counting. */
function utilityValue(how: "utility_kw" | "utility_turns", values: UtilityValues): ReadingFact["value"] {
  const number = (text: string) => Number(text);
  return how === "utility_kw"
    ? { unit: "meter_kw", before: number(values.before), after: number(values.after) }
    : {
        unit: "meter_turns",
        wh_each: number(values.wh),
        before: { count: number(values.turnsBefore), seconds: number(values.secondsBefore) },
        after: { count: number(values.turnsAfter), seconds: number(values.secondsAfter) },
      };
}

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
    case "plug_in_amps":
      return {
        kind: "reading_taken",
        target,
        with: "plug_in_meter",
        value: { unit: "amps", amps: number(values.amps) },
      };
    case "line_splitter":
      return {
        kind: "reading_taken",
        target,
        with: "line_splitter",
        value: { unit: "amps", amps: number(values.amps) },
      };
    case "utility_kw":
    case "utility_turns":
      return { kind: "reading_taken", target, with: "utility_meter", value: utilityValue(values.how, values) };
  }
}

interface ReadLoadProps {
  home: string;
  load: Pick<LoadLine, "load" | "name">;
  /** With what it is begun with. */
  how?: How;
  onClose: () => void;
}

/** What one load takes, read without taking a cover off. */
export function ReadLoad({ home, load, how = "plug_in_meter", onClose }: ReadLoadProps) {
  const record = useRecord(home);
  return (
    <FormDialog
      title={`What the ${load.name} takes`}
      keep={`read load ${home} ${load.load}`}
      recorded={{ ...NOTHING, how }}
      onSave={(values) => record([factOf(load.load, values)])}
      onClose={onClose}
      size="sm"
    >
      {(values) => (
        <>
          <One name="how" label="Read with" options={HOW} />
          {values.how === "plug_in_meter" && <Amount name="watts" label="It shows while it runs" unit="W" required />}
          {(values.how === "line_splitter" || values.how === "plug_in_amps") && (
            <Amount name="amps" label="It shows while it runs" unit="A" required />
          )}
          {(values.how === "utility_kw" || values.how === "utility_turns") && (
            <ByUtility
              how={values.how}
              words={`Leave everything else as it is. Read the meter, switch the ${load.name} on, wait half a minute, read again.`}
            />
          )}
        </>
      )}
    </FormDialog>
  );
}

/** The utility's meter before and after. */
function ByUtility({ how, words }: { how: "utility_kw" | "utility_turns"; words: string }) {
  return (
    <>
      <Typography variant="body2" color="text.secondary">
        {words}
      </Typography>
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

type CircuitValues = { amps: string; pole: string; arranged: boolean; sure: boolean };
const circuitFields = fieldsOf<CircuitValues>();

/** A clamp round the hot of a circuit: live work, for qualified hands. */
export function ReadCircuit({ home, circuit, running, onClose }: CircuitProps) {
  const record = useRecord(home);
  return (
    <FormDialog
      title={`A clamp on ${circuit.number}`}
      keep={`read circuit ${home} ${circuit.breaker}`}
      recorded={{ amps: "", pole: "1", arranged: false, sure: false }}
      onSave={({ amps, pole, arranged, sure }) =>
        record([
          {
            kind: "reading_taken",
            target: { of: "circuit", breaker: circuit.breaker, pole: Number(pole) },
            with: "clamp",
            value: { unit: "amps", amps: Number(amps) },
            running: [...running],
            ...(arranged && running.length > 0 && { arranged }),
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
      <circuitFields.Tick
        name="arranged"
        label="What is ticked was switched on for this reading: all of it ran, and nothing else"
      />
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

type WholeHow = "clamp" | "utility_kw" | "utility_turns";
type WholeValues = UtilityValues & { how: WholeHow; amps: string; ran: string[]; sure: boolean };
const WHOLE_BY_UTILITY: readonly (readonly [WholeHow, string])[] = [
  ["utility_kw", "the utility's meter, its kW before and after"],
  ["utility_turns", "the utility's meter, turns or flashes counted"],
];
const wholeFields = fieldsOf<WholeValues>();

interface WholeProps {
  home: string;
  number: string;
  breaker: string;
  with: "clamp" | "utility_meter";
  /** Loads by id, with their names. */
  loads: readonly (readonly [string, string])[];
  onClose: () => void;
}

/** A circuit with its loads switched on for the reading. */
export function ReadWhole({ home, number, breaker, with: instrument, loads, onClose }: WholeProps) {
  const record = useRecord(home);
  const recorded: WholeValues = {
    how: instrument === "clamp" ? "clamp" : "utility_kw",
    amps: "",
    ran: loads.map(([load]) => load),
    sure: false,
    ...NOTHING_OF_UTILITY,
  };
  const save = (values: WholeValues) =>
    record([
      {
        kind: "reading_taken",
        target: { of: "circuit", breaker, pole: 1 },
        with: values.how === "clamp" ? "clamp" : "utility_meter",
        value: values.how === "clamp" ? { unit: "amps", amps: Number(values.amps) } : utilityValue(values.how, values),
        running: values.ran,
        arranged: true,
        ...(values.sure && { sure: true }),
      },
    ]);
  return (
    <FormDialog
      title={`What ${number} takes with its loads on`}
      keep={`read whole ${home} ${breaker}`}
      recorded={recorded}
      onSave={save}
      onClose={onClose}
      size="sm"
    >
      {(values) => (
        <>
          {instrument === "utility_meter" && (
            <wholeFields.One name="how" label="Read with" options={WHOLE_BY_UTILITY} />
          )}
          <wholeFields.Several name="ran" label="These were switched on for it, and ran" options={loads} />
          {values.how === "clamp" ? (
            <>
              <wholeFields.Amount name="amps" label="The clamp shows" unit="A" required />
              <wholeFields.Tick name="sure" label="Read twice: it is so, even if it is far above the breaker" />
            </>
          ) : (
            <ByUtility
              how={values.how}
              words={`Read the meter with breaker ${number} off, then with it on and all of these running. Leave everything else as it is.`}
            />
          )}
        </>
      )}
    </FormDialog>
  );
}

type VoltsValues = { bus: string; output: string; across: string; amps: string };
const voltsFields = fieldsOf<VoltsValues>();
const said = (value: number | null | undefined) => (value == null ? "" : String(value));

/** Volts at a breaker with its load on: live work, for qualified hands. */
export function ReadBreakerVolts({ home, circuit, onClose }: Pick<CircuitProps, "home" | "circuit" | "onClose">) {
  const record = useRecord(home);
  const known = circuit.diagnosis?.volts;
  const number = (text: string) => (text === "" ? null : Number(text));
  return (
    <FormDialog
      title={`Volts at ${circuit.number}`}
      keep={`read volts ${home} ${circuit.breaker}`}
      recorded={{
        bus: said(known?.bus),
        output: said(known?.output),
        across: said(known?.across),
        amps: said(known?.amps),
      }}
      onSave={({ bus, output, across, amps }) =>
        record([
          {
            kind: "breaker_volts_read",
            breaker: circuit.breaker,
            volts: { bus: number(bus), output: number(output), across: number(across), amps: number(amps) },
          },
        ])
      }
      onClose={onClose}
    >
      <Alert severity="error" variant="outlined">
        With the cover off this is live work with arc-flash danger, for qualified people only: a meter of CAT III 600 V
        with fused leads, eye protection, a dry floor. The line-side lugs stay live with the main off.
      </Alert>
      <Typography variant="body2" color="text.secondary">
        Read with the breaker on and a load of 5 A or more running; hot to neutral, or between the two hots of a
        two-pole. What is not read stays empty.
      </Typography>
      <voltsFields.Amount name="bus" label="On the bus side" unit="V" />
      <voltsFields.Amount name="output" label="On the breaker's own terminal" unit="V" />
      <voltsFields.Amount name="across" label="Across it, from bus to terminal" unit="V" />
      <voltsFields.Amount name="amps" label="What flows meanwhile" unit="A" />
    </FormDialog>
  );
}
