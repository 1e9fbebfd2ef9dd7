import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Draw, Fact, LoadLine } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { readPlate } from "../../api/queries";
import { useRecord } from "../../api/record";
import { useAct } from "../../app/useAct";
import { AskFirst } from "../../parts/AskFirst";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";
import { fromYesNo, yesNo, type YesNo } from "../../parts/yesNo";

type From = Draw["from"];
type Values = {
  name: string;
  count: string;
  from: From;
  plate: string;
  continuous: YesNo;
  never: string;
};
const { Text, Amount, One, YesOrNo } = fieldsOf<Values>();

interface Props {
  home: string;
  load: LoadLine | undefined;
  others: readonly LoadLine[];
  onClose: () => void;
}

const valuesOf = ({ stated, name, count }: LoadLine): Values => ({
  name,
  count: String(count),
  from: stated.draw?.from ?? "library",
  plate: stated.draw?.from === "plate" ? plateText(stated.draw) : "",
  continuous: yesNo(stated.continuous),
  never: stated.never_with?.[0] ?? "",
});

function plateText(plate: Extract<Draw, { from: "plate" }>): string {
  const parts = [
    plate.volts != null && `${plate.volts} V`,
    plate.amps != null && `${plate.amps} A`,
    plate.watts != null && `${plate.watts} W`,
    plate.minimum_ampacity != null && `minimum ${plate.minimum_ampacity} A`,
    plate.largest_breaker != null && `maximum ${plate.largest_breaker} A`,
  ];
  return parts.filter((part) => part !== false).join(", ");
}

/** A load: its name, how many alike, how it is known what it takes. */
export function EditLoad({ home, load, others, onClose }: Props) {
  const record = useRecord(home);
  const act = useAct(home);
  if (load === undefined) return null;
  const appliance = LISTS.appliances.find((one) => one.id === load.stated.appliance);
  const sources: [From, string][] = [
    ...(appliance ? ([["library", `the library's ${appliance.watts} W`]] as [From, string][]) : []),
    ["plate", "its data plate"],
    ["not_known", "not known"],
  ];
  const save = async (values: Values) => {
    const draw: Draw =
      values.from === "plate" ? { from: "plate", ...(await readPlate(values.plate)) } : { from: values.from };
    const fact: Fact = {
      kind: "load_placed",
      ...load.stated,
      name: values.name,
      count: Number(values.count),
      draw,
      continuous: fromYesNo(values.continuous),
      never_with: values.never === "" ? [] : [values.never],
    };
    return record([fact]);
  };
  const remove = () => {
    void act([{ kind: "load_removed", load: load.load }], `${load.name} is taken out.`);
    onClose();
  };
  return (
    <FormDialog
      title={load.name}
      keep={`load ${home} ${load.load}`}
      recorded={valuesOf(load)}
      onSave={save}
      onClose={onClose}
    >
      {(values) => (
        <>
          <Typography color="text.secondary">{load.place}</Typography>
          <Text name="name" label="What it is" required />
          <Amount name="count" label="How many alike" whole required />
          <One name="from" label="What it takes is known by" options={sources} />
          {values.from === "plate" && (
            <Text
              name="plate"
              label="The plate says"
              required
              placeholder="1450 W, or 12 A 120 V"
              help="With its units. A cooling unit: minimum 18 A, maximum 30 A."
            />
          )}
          {values.from === "library" && appliance && (
            <Alert severity="info" variant="outlined">
              {appliance.watts_low} to {appliance.watts_high} W is usual; {FIGURE[appliance.watts_from]}. A plate or a
              reading goes before it.
            </Alert>
          )}
          {values.from === "not_known" && (
            <Alert severity="info" variant="outlined">
              It then counts as an interval, never as nothing.
            </Alert>
          )}
          <YesOrNo name="continuous" label="Runs for three hours or more" />
          {others.length > 0 && (
            <One
              name="never"
              label="Never runs together with"
              options={[["", "nothing"], ...others.map((other) => [other.load, other.name] as [string, string])]}
            />
          )}
          <Box>
            <AskFirst
              words="Take it out"
              label={`Take ${load.name} out`}
              question={`Take the ${load.name} out?`}
              onYes={remove}
            />
          </Box>
        </>
      )}
    </FormDialog>
  );
}

const FIGURE: Record<(typeof LISTS.appliances)[number]["watts_from"], string> = {
  practice: "common practice",
  arithmetic: "worked out",
  tables: "published tables, from memory",
  estimate: "our estimate",
};
