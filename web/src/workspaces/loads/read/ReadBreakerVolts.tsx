import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import { useFormContext } from "react-hook-form";
import type { CircuitLoads } from "../../../api/client";
import { useRecord } from "../../../api/record";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";
import { MeterOnScreen } from "../../practice/MeterOnScreen";

type VoltsValues = { bus: string; output: string; across: string; amps: string };
const voltsFields = fieldsOf<VoltsValues>();
const said = (value: number | null | undefined) => (value == null ? "" : String(value));

interface Props {
  home: string;
  circuit: CircuitLoads;
  /** The loads that are ticked as running. */
  running: readonly string[];
  onClose: () => void;
}

/** Volts at a breaker with its load on: live work, for qualified hands. */
export function ReadBreakerVolts({ home, circuit, running, onClose }: Props) {
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
      <OnScreen breaker={circuit.breaker} running={running} />
      <voltsFields.Amount name="bus" label="On the bus side" unit="V" />
      <voltsFields.Amount name="output" label="On the breaker's own terminal" unit="V" />
      <voltsFields.Amount name="across" label="Across it, from bus to terminal" unit="V" />
      <voltsFields.Amount name="amps" label="What flows meanwhile" unit="A" />
    </FormDialog>
  );
}

/** In a made-up house: the meter at the breaker. */
function OnScreen({ breaker, running }: { breaker: string; running: readonly string[] }) {
  const form = useFormContext<VoltsValues>();
  return (
    <MeterOnScreen
      at={{ breaker, running: running.join(",") }}
      onShown={({ at_breaker: volts }) => {
        for (const name of ["bus", "output", "across", "amps"] as const) {
          form.setValue(name, said(volts?.[name]), { shouldDirty: true });
        }
      }}
    />
  );
}
