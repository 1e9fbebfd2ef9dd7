import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { useController } from "react-hook-form";
import type { BreakerDetails, BreakerView, Fact, HomeOverview } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { newId, useRecord } from "../../api/record";
import { Choice } from "../../parts/Choice";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { KeptFormBody } from "../../parts/form/KeptFormBody";
import { useKeptForm } from "../../parts/form/useKeptForm";
import { fromYesNo, numberOrNull, yesNo, type YesNo } from "../../parts/yesNo";
import { wireName, wireOf, WIRES } from "./wires";

const HOUSINGS = [["", "as its spaces tell"], ...LISTS.housings] as const;
const LEADS = [["", "not looked at"], ...LISTS.neutralLeads] as const;

const BRINGS_IN = [["", "nothing: it feeds its circuit"], ...LISTS.sources] as const;
const isGenerator = (source: string) => source === "portable_generator" || source === "standby_generator";

const COUNTS = [
  ["", "not read"],
  ["1", "1"],
  ["2", "2"],
  ["3", "3"],
  ["4", "4"],
] as const;
const NO_YES: ["no" | "yes", string][] = [
  ["no", "no"],
  ["yes", "yes"],
];

/** A breaker as its form shows it. */
type Values = {
  at: string;
  amps: string;
  kind: BreakerView["protection"];
  wire: string;
  label: string;
  cable: (typeof LISTS.cables)[number][0];
  terminals: (typeof LISTS.terminals)[number][0];
  housing: (typeof HOUSINGS)[number][0];
  tie: BreakerDetails["tie"];
  hooked: YesNo;
  type_name: string;
  interrupting_ka: string;
  under: (typeof COUNTS)[number][0];
  listed: (typeof COUNTS)[number][0];
  alike: YesNo;
  torque: string;
  neutral: (typeof LEADS)[number][0];
  feeds: string;
  main: "no" | "yes";
  fastened: YesNo;
  brings_in: (typeof BRINGS_IN)[number][0];
  inverter_amps: string;
  interlocked: YesNo;
  slash_rated: YesNo;
  slack: string;
};

const { Text, Amount, One, YesOrNo } = fieldsOf<Values>();

interface Props {
  home: HomeOverview;
  panel: string;
  breaker: BreakerView | null;
  number: string;
  /** Where it can sit, by its number of poles: `9`, `9-11`. */
  fits?: string[];
  onDone: (breaker: string) => void;
  onCancel?: () => void;
}

/** One breaker: where, how large, what kind, what the old card says; and what else was read. */
export function BreakerForm({ home, panel, breaker, number, fits = [], onDone, onCancel }: Props) {
  const record = useRecord(home.id);
  const [more, setMore] = useState(false);
  const kept = useKeptForm(`breaker ${home.id} ${panel} ${breaker?.breaker ?? number}`, valuesOf(breaker, number));
  const highLeg = home.panels.some((view) => view.panel.id === panel && view.panel.service === "high_leg");
  const save = async (values: Values) => {
    const id = breaker?.breaker ?? newId();
    await record(factsOf(id, panel, breaker, values));
    onDone(id);
  };
  return (
    <KeptFormBody kept={kept} onSave={save}>
      {(values, saving, error) => (
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: "1fr 1fr" }}>
          <Amount name="amps" label="Amps" help="on the handle" required autoFocus={breaker === null} />
          {fits.length > 1 && <Poles fits={fits} />}
          <Text name="at" label="Space" help="5; two poles 5-7; half of a tandem 14a" required />
          <One name="kind" label="Kind" options={LISTS.protections} />
          <Text name="label" label="What the old card says" help="kept as a claim, never as a fact" wide />
          <One name="wire" label="Wire, if read" options={WIRES} />
          {more ? (
            <>
              {values.wire !== "" && (
                <>
                  <One name="cable" label="Cable" options={LISTS.cables} />
                  <One name="terminals" label="Heat marking" options={LISTS.terminals} />
                </>
              )}
              <One name="housing" label="Housing" options={HOUSINGS} />
              {values.at.split("-").length > 1 ? (
                <One name="tie" label="Opens together by" options={LISTS.ties} />
              ) : (
                <YesOrNo name="hooked" label="Rejection hook" help="a tandem that fits notches only" />
              )}
              <Text name="type_name" label="Type, as printed" />
              <Amount name="interrupting_ka" label="Interrupting rating" unit="kA" whole />
              <One name="under" label="Conductors under a terminal" options={COUNTS} />
              <One name="listed" label="Terminal is marked for" options={COUNTS} />
              {Number(values.under) > 1 && <YesOrNo name="alike" label="Same size and metal" />}
              <Amount
                name="torque"
                label="Torque on the label"
                unit="lb-in"
                help={
                  values.torque === ""
                    ? "the label's value, or nothing"
                    : `${(Number(values.torque) * 0.112985).toFixed(2)} N·m`
                }
              />
              {values.kind !== "standard" && <One name="neutral" label="Its neutral" options={LEADS} />}
              <Amount
                name="slack"
                label="Its wires reach further"
                unit="spaces"
                help="up or down; the other side counts as six"
                whole
              />
              <Text name="feeds" label="Said to feed the panel" help="until that panel is described" />
              <One name="main" label="Is it the main, back-fed?" options={NO_YES} />
              <One name="brings_in" label="What feeds the panel through it" options={BRINGS_IN} />
              {(values.main === "yes" || isGenerator(values.brings_in)) && (
                <YesOrNo name="fastened" label="Held by a fastener" />
              )}
              {isGenerator(values.brings_in) && (
                <YesOrNo name="interlocked" label="Interlock with the main" help="only one of the two can be on" />
              )}
              {(values.brings_in === "solar" || values.brings_in === "battery") && (
                <Amount name="inverter_amps" label="Inverter's output" help="amps on its plate" />
              )}
              {highLeg && values.at.split("-").length > 1 && (
                <YesOrNo name="slash_rated" label="Marked 120/240 V, with a slash" />
              )}
            </>
          ) : (
            <Button color="inherit" onClick={() => setMore(true)} sx={{ gridColumn: "1 / -1", justifySelf: "start" }}>
              More that was read
            </Button>
          )}
          {error}
          <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 1.5, flexWrap: "wrap" }}>
            <Button type="submit" variant="contained" disabled={saving}>
              {breaker ? "Save" : "Put the breaker in"}
            </Button>
            {onCancel && (
              <Button
                color="inherit"
                onClick={() => {
                  kept.discard();
                  onCancel();
                }}
              >
                Cancel
              </Button>
            )}
          </Box>
        </Box>
      )}
    </KeptFormBody>
  );
}

/** How many poles: where it sits follows from it. */
function Poles({ fits }: { fits: string[] }) {
  const { field } = useController<Values, "at">({ name: "at" });
  const typed = fits.includes(field.value) ? [] : [["", "as typed under Space"] as const];
  const options = [...typed, ...fits.map((at, n) => [at, `${n + 1}, at ${at}`] as const)];
  return (
    <Choice
      label="Poles"
      value={fits.includes(field.value) ? field.value : ""}
      options={options}
      onChange={field.onChange}
    />
  );
}

const count = (number: number | null | undefined): (typeof COUNTS)[number][0] =>
  COUNTS.find(([known]) => known === String(number ?? ""))?.[0] ?? "";
const typed = (number: number | null | undefined) => (number == null ? "" : String(number));

function valuesOf(breaker: BreakerView | null, number: string): Values {
  const details: BreakerDetails = breaker?.details ?? LISTS.unreadBreaker;
  return {
    at: number,
    amps: breaker ? String(breaker.amps) : "15",
    kind: breaker?.protection ?? "standard",
    wire: wireName(breaker?.wire),
    label: breaker?.claim ?? "",
    cable: breaker?.wire?.cable ?? "not_read",
    terminals: breaker?.wire?.terminals ?? "unread",
    housing: details.housing ?? "",
    tie: details.tie,
    hooked: yesNo(details.hooked),
    type_name: details.type_name,
    interrupting_ka: typed(details.interrupting_ka),
    under: count(details.terminal.under),
    listed: count(details.terminal.listed),
    alike: yesNo(details.terminal.alike),
    torque: typed(details.terminal.torque_inlb),
    neutral: details.neutral ?? "",
    feeds: details.feeds,
    main: details.back_fed_main ? "yes" : "no",
    fastened: yesNo(details.fastened),
    brings_in: details.brings_in ?? "",
    inverter_amps: typed(details.inverter_amps),
    interlocked: yesNo(details.interlocked),
    slash_rated: yesNo(details.slash_rated),
    slack: typed(details.slack),
  };
}

function factsOf(id: string, panel: string, breaker: BreakerView | null, values: Values): Fact[] {
  const placed: Fact = {
    kind: "breaker_placed",
    breaker: id,
    panel,
    at: values.at.split("-").map((slot) => slot.trim()),
    amps: Number(values.amps),
    protection: values.kind,
    wire: wireOf(values.wire, breaker?.wire, { cable: values.cable, terminals: values.terminals }),
    details: {
      housing: values.housing || null,
      tie: values.tie,
      hooked: fromYesNo(values.hooked),
      type_name: values.type_name,
      interrupting_ka: numberOrNull(values.interrupting_ka),
      neutral: values.neutral || null,
      feeds: values.feeds,
      back_fed_main: values.main === "yes",
      fastened: fromYesNo(values.fastened),
      brings_in: values.brings_in || null,
      inverter_amps: numberOrNull(values.inverter_amps),
      interlocked: fromYesNo(values.interlocked),
      slash_rated: fromYesNo(values.slash_rated),
      // How far its wires reach was said of the place where it was.
      slack: breaker !== null && values.at !== breaker.number ? null : numberOrNull(values.slack),
      terminal: {
        under: numberOrNull(values.under),
        listed: numberOrNull(values.listed),
        alike: fromYesNo(values.alike),
        torque_inlb: numberOrNull(values.torque),
      },
    },
  };
  const claimed: Fact[] =
    values.label.trim() === (breaker?.claim ?? "") ? [] : [{ kind: "label_claimed", breaker: id, text: values.label }];
  return [placed, ...claimed];
}
