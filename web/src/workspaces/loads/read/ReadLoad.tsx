import { useFormContext } from "react-hook-form";
import type { Fact, LoadLine } from "../../../api/client";
import { useRecord } from "../../../api/record";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";
import { MeterOnScreen } from "../../practice/MeterOnScreen";
import { ByUtility } from "./ByUtility";
import { NOTHING_OF_UTILITY, utilityValue, type ReadingFact, type UtilityValues } from "./utility";

type How = "plug_in_meter" | "plug_in_amps" | "line_splitter" | "utility_kw" | "utility_turns";
type Values = UtilityValues & { how: How; watts: string; amps: string; volts: string };
const NOTHING: Values = { how: "plug_in_meter", watts: "", amps: "", volts: "", ...NOTHING_OF_UTILITY };
const { Amount, One } = fieldsOf<Values>();

const HOW: readonly (readonly [How, string])[] = [
  ["plug_in_meter", "a power meter that plugs in, its watts"],
  ["plug_in_amps", "a power meter that plugs in, its amperes"],
  ["line_splitter", "a clamp on a line splitter at the outlet"],
  ["utility_kw", "the utility's meter, its kW before and after"],
  ["utility_turns", "the utility's meter, turns or flashes counted"],
];

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

/** Volts that stand at the point meanwhile: a meter that plugs in shows them, too. */
const voltsOf = (point: string, values: Values): Fact[] =>
  values.volts === "" || values.how.startsWith("utility")
    ? []
    : [{ kind: "volts_read", point, volts: Number(values.volts) }];

interface ReadLoadProps {
  home: string;
  load: Pick<LoadLine, "load" | "name" | "point" | "volts">;
  /** With what it is begun with. */
  how?: How;
  onClose: () => void;
}

/** What one load takes, read without taking a cover off. */
export function ReadLoad({ home, load, how = "plug_in_meter", onClose }: ReadLoadProps) {
  const record = useRecord(home);
  // Nothing that plugs in at 120 V goes on 240 V.
  const options = load.volts === 240 ? HOW.filter(([one]) => one.startsWith("utility")) : HOW;
  const first = load.volts === 240 && !how.startsWith("utility") ? "utility_kw" : how;
  return (
    <FormDialog
      title={`What the ${load.name} takes`}
      keep={`read load ${home} ${load.load}`}
      recorded={{ ...NOTHING, how: first }}
      onSave={(values) => record([factOf(load.load, values), ...voltsOf(load.point, values)])}
      onClose={onClose}
      size="sm"
    >
      {(values) => (
        <>
          <One name="how" label="Read with" options={options} />
          {!values.how.startsWith("utility") && <OnScreen load={load.load} how={values.how} />}
          {values.how === "plug_in_meter" && <Amount name="watts" label="It shows while it runs" unit="W" required />}
          {(values.how === "line_splitter" || values.how === "plug_in_amps") && (
            <Amount name="amps" label="It shows while it runs" unit="A" required />
          )}
          {!values.how.startsWith("utility") && <Amount name="volts" label="Volts, if it shows them" unit="V" />}
          {(values.how === "utility_kw" || values.how === "utility_turns") && (
            <ByUtility
              how={values.how}
              running={[load.load]}
              words={`Leave everything else as it is. Read the meter, switch the ${load.name} on, wait half a minute, read again.`}
            />
          )}
        </>
      )}
    </FormDialog>
  );
}

/** In a made-up house: the meter that the load plugs into. */
function OnScreen({ load, how }: { load: string; how: How }) {
  const form = useFormContext<Values>();
  const enter = (name: "watts" | "amps" | "volts", value: number | null | undefined) =>
    form.setValue(name, value == null ? "" : String(value), { shouldDirty: true });
  return (
    <MeterOnScreen
      at={{ load, with: how === "line_splitter" ? "line_splitter" : "plug_in_meter" }}
      onShown={(shows) => {
        enter("watts", shows.watts);
        enter("amps", shows.amps);
        enter("volts", shows.volts);
      }}
    />
  );
}
