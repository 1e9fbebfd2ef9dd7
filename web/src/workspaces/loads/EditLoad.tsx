import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Draw, Fact, LoadLine, Usage } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { readPlate } from "../../api/queries";
import { useRecord } from "../../api/record";
import { useAct } from "../../app/useAct";
import { AskFirst } from "../../parts/AskFirst";
import { Fold } from "../../parts/Fold";
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
  fastened: YesNo;
  minutes: string;
  uses: string;
  when: string[];
  season: NonNullable<Usage["season"]>;
  with: string;
  never: string[];
};
const { Text, Amount, One, Several, YesOrNo } = fieldsOf<Values>();

interface Props {
  home: string;
  load: LoadLine | undefined;
  others: readonly LoadLine[];
  onClose: () => void;
}

const likeOf = (load: LoadLine) => LISTS.appliances.find((one) => one.id === load.stated.appliance);

/** How often and when, as it is known: as somebody said, else as the library has it. */
const usageOf = (load: LoadLine) => load.stated.usage ?? likeOf(load)?.usage;

/** What the form says of how often and when; nothing where it says what the library says. */
function usageFrom(values: Values, load: LoadLine): Usage | null {
  if (values.minutes === "" && values.uses === "") return null;
  if (values.minutes === "" || values.uses === "") {
    throw new Error("How often wants both: the minutes each time and the times a day.");
  }
  const usage: Usage = {
    minutes: Number(values.minutes),
    uses_per_day: Number(values.uses),
    when: (values.when.length === 0 ? ["any"] : values.when) as Usage["when"],
    season: values.season,
  };
  const like = likeOf(load)?.usage;
  const asLike =
    like !== undefined &&
    like.minutes === usage.minutes &&
    like.uses_per_day === usage.uses_per_day &&
    like.season === usage.season &&
    [...like.when].sort().join() === [...usage.when].sort().join();
  return asLike ? null : usage;
}

const valuesOf = (load: LoadLine): Values => {
  const { stated, name, count } = load;
  const usage = usageOf(load);
  return {
    name,
    count: String(count),
    from: stated.draw?.from ?? "library",
    plate: stated.draw?.from === "plate" ? plateText(stated.draw) : "",
    continuous: yesNo(stated.continuous),
    fastened: yesNo(stated.fastened),
    minutes: usage === undefined ? "" : String(usage.minutes),
    uses: usage === undefined ? "" : String(usage.uses_per_day),
    when: [...(usage?.when ?? [])],
    season: usage?.season ?? "all",
    with: stated.with ?? "",
    never: [...(stated.never_with ?? [])],
  };
};

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
  const appliance = likeOf(load);
  const named = others.map((other) => [other.load, `${other.name}, ${other.place}`] as [string, string]);
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
      fastened: fromYesNo(values.fastened),
      usage: usageFrom(values, load),
      with: values.with === "" ? null : values.with,
      // What is elsewhere is not offered here, and stays as it was said.
      never_with: [
        ...(load.stated.never_with ?? []).filter((one) => !others.some((other) => other.load === one)),
        ...values.never.filter((one) => others.some((other) => other.load === one)),
      ],
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
          <Fold label="how often, fastened, together with" open={load.stated.usage != null || load.stated.with != null}>
            <YesOrNo
              name="fastened"
              label="Fastened in place"
              help={`Where nobody said: ${load.fastened && load.stated.fastened == null ? "yes" : "by the kind of its point"}.`}
            />
            <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2 }}>
              <Amount name="minutes" label="Minutes each time" unit="min" />
              <Amount name="uses" label="Times a day" />
            </Box>
            <Several name="when" label="When it runs" options={LISTS.dayParts} />
            <One name="season" label="In which season" options={SEASONS} />
            {load.stated.usage == null && appliance && (
              <Typography variant="body2" color="text.secondary">
                How often and when is our estimate for such an appliance. Change it where you know better.
              </Typography>
            )}
            {named.length > 0 && (
              <>
                <One name="with" label="Runs whenever this one runs" options={[["", "none"], ...named]} />
                <Several name="never" label="Never runs together with" options={named} />
              </>
            )}
          </Fold>
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

const SEASONS = [
  ["all", "all year"],
  ["heat", "when it is heated"],
  ["cool", "when it is cooled"],
] as const;

const FIGURE: Record<(typeof LISTS.appliances)[number]["watts_from"], string> = {
  practice: "common practice",
  arithmetic: "worked out",
  tables: "published tables, from memory",
  estimate: "our estimate",
};
