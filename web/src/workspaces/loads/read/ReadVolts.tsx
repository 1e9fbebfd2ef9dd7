import Typography from "@mui/material/Typography";
import { useFormContext } from "react-hook-form";
import { useRecord } from "../../../api/record";
import { useThisHome } from "../../../app/useThisHome";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";
import { MeterOnScreen } from "../../practice/MeterOnScreen";

type Values = { point: string; volts: string };
const { One, Amount } = fieldsOf<Values>();

interface Props {
  home: string;
  /** The outlet that is asked for. */
  point: string;
  onClose: () => void;
}

/** Volts at an outlet. */
export function ReadVolts({ home, point, onClose }: Props) {
  const record = useRecord(home);
  const { points, rooms } = useThisHome();
  const room = (id: string) => rooms.find((one) => one.id === id)?.name ?? "";
  const outlets = points
    .filter((one) => one.kind === "receptacle")
    .map((one) => [one.id, `${room(one.room)}, ${one.name}`] as const);
  return (
    <FormDialog
      title="Volts at an outlet"
      keep={`volts ${home} ${point}`}
      recorded={{ point, volts: "" }}
      onSave={(values) => record([{ kind: "volts_read", point: values.point, volts: Number(values.volts) }])}
      onClose={onClose}
      size="sm"
    >
      {(values) => (
        <>
          <Typography variant="body2" color="text.secondary">
            With everything on and what usually runs. The probes go into the two straight slots, hands behind their
            guards: the outlet is live. Use a meter of CAT II 300 V or better; whoever has never used one leaves it to
            somebody who has. A plug-in tester shows no volts.
          </Typography>
          <One name="point" label="At" options={[["", "choose"] as const, ...outlets]} />
          {values.point !== "" && <OnScreen point={values.point} />}
          <Amount name="volts" label="The meter shows" unit="V" required />
        </>
      )}
    </FormDialog>
  );
}

/** In a made-up house: the meter at that outlet. */
function OnScreen({ point }: { point: string }) {
  const form = useFormContext<Values>();
  return (
    <MeterOnScreen
      at={{ point }}
      onShown={({ volts }) => form.setValue("volts", String(volts ?? ""), { shouldDirty: true })}
    />
  );
}
