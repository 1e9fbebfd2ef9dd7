import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import { useFormContext } from "react-hook-form";
import type { CircuitLoads } from "../../../api/client";
import { useRecord } from "../../../api/record";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";
import { MeterOnScreen } from "../../practice/MeterOnScreen";
import { ByUtility } from "./ByUtility";
import { NOTHING_OF_UTILITY, utilityValue, type UtilityValues } from "./utility";

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
      <ClampOnScreen breaker={circuit.breaker} running={running} />
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
              <ClampOnScreen breaker={breaker} running={values.ran} />
              <wholeFields.Amount name="amps" label="The clamp shows" unit="A" required />
              <wholeFields.Tick name="sure" label="Read twice: it is so, even if it is far above the breaker" />
            </>
          ) : (
            <ByUtility
              how={values.how}
              running={values.ran}
              off={breaker}
              words={`Read the meter with breaker ${number} off, then with it on and all of these running. Leave everything else as it is.`}
            />
          )}
        </>
      )}
    </FormDialog>
  );
}

/** In a made-up house: the clamp round the hot of the breaker. */
function ClampOnScreen({ breaker, running }: { breaker: string; running: readonly string[] }) {
  const form = useFormContext<{ amps: string; pole?: string }>();
  const pole = Number(form.watch("pole") ?? "1") || 1;
  return (
    <MeterOnScreen
      at={{ breaker, pole, with: "clamp", running: running.join(",") }}
      onShown={(shows) => form.setValue("amps", String(shows.amps ?? ""), { shouldDirty: true })}
    />
  );
}
