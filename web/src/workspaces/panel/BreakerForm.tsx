import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState, type SyntheticEvent } from "react";
import type { BreakerView, BreakerDetails, Fact, HomeOverview } from "../../api/client";
import { LISTS } from "../../api/lists";
import { newId, useRecord } from "../../api/record";
import { wordsOf } from "../../app/useNotice";
import { Choice } from "../../parts/Choice";
import { fromYesNo, numberOrNull, YES_NO, yesNo, type YesNo } from "../../parts/yesNo";
import { wireName, wireOf, WIRES } from "./wires";

type Protection = BreakerView["protection"];
const KINDS: [Protection, string][] = [
  ["standard", "Standard"],
  ["gfci", "GFCI"],
  ["afci", "AFCI"],
  ["dual_function", "Dual function"],
];
type Housing = NonNullable<BreakerDetails["housing"]>;
const HOUSINGS: [Housing | "", string][] = [
  ["", "as its spaces tell"],
  ["full", "full size"],
  ["tandem", "tandem"],
  ["quad", "quad"],
  ["slim", "slim"],
];
const TIES: ["common_trip" | "handle", string][] = [
  ["common_trip", "one mechanism, common trip"],
  ["handle", "handle tie"],
];
const LEADS: ["" | "pigtail" | "plug_on", string][] = [
  ["", "not looked at"],
  ["pigtail", "pigtail to the bar"],
  ["plug_on", "plugs onto the rail"],
];

interface Props {
  home: HomeOverview;
  panel: string;
  blade: BreakerView | null;
  number: string;
  onDone: (breaker: string) => void;
  onCancel?: () => void;
}

/** One breaker: where, how large, what kind, what the old card says; and what else was read. */
export function BreakerForm({ home, panel, blade, number, onDone, onCancel }: Props) {
  const record = useRecord(home.id);
  const before = blade?.details ?? LISTS.unreadBreaker;
  const [at, setAt] = useState(number);
  const [amps, setAmps] = useState(blade ? String(blade.amps) : "15");
  const [kind, setKind] = useState<Protection>(blade?.protection ?? "standard");
  const [wire, setWire] = useState(wireName(blade?.wire));
  const [label, setLabel] = useState(blade?.claim ?? "");
  const [more, setMore] = useState(false);
  const [cable, setCable] = useState<(typeof LISTS.cables)[number][0]>(blade?.wire?.cable ?? "not_read");
  const [terminals, setTerminals] = useState<(typeof LISTS.terminals)[number][0]>(blade?.wire?.terminals ?? "unread");
  const [details, setDetails] = useState<BreakerDetails>(before);
  const [torque, setTorque] = useState(before.terminal.torque_inlb == null ? "" : String(before.terminal.torque_inlb));
  const [error, setError] = useState<unknown>(null);
  const change = (changed: Partial<BreakerDetails>) => setDetails((now) => ({ ...now, ...changed }));
  const { terminal } = details;
  const poles = at.split("-").length;

  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const breaker = blade?.breaker ?? newId();
    const facts: Fact[] = [
      {
        kind: "breaker_placed",
        breaker,
        panel,
        at: at.split("-").map((slot) => slot.trim()),
        amps: Number(amps),
        protection: kind,
        wire: wireOf(wire, blade?.wire, { cable, terminals }),
        details: { ...details, terminal: { ...terminal, torque_inlb: numberOrNull(torque) } },
      },
    ];
    if (label.trim() !== (blade?.claim ?? "")) facts.push({ kind: "label_claimed", breaker, text: label });
    try {
      await record(facts);
      onDone(breaker);
    } catch (refused) {
      setError(refused);
    }
  };

  return (
    <Box
      component="form"
      onSubmit={(event) => void submit(event)}
      sx={{ display: "grid", gap: 2, gridTemplateColumns: "1fr 1fr" }}
    >
      <TextField
        label="Space"
        value={at}
        onChange={(e) => setAt(e.target.value)}
        helperText="5, 5-7, 14a or 2b-4a"
        required
        autoFocus={blade === null}
      />
      <TextField
        label="Amps"
        value={amps}
        onChange={(e) => setAmps(e.target.value)}
        slotProps={{ htmlInput: { inputMode: "decimal", pattern: "[0-9]+(\\.[0-9]+)?" } }}
        helperText="on the handle"
        required
      />
      <Choice label="Kind" value={kind} options={KINDS} onChange={setKind} />
      <Choice label="Wire, if read" value={wire} options={WIRES} onChange={setWire} />
      <TextField
        label="What the old card says"
        value={label}
        onChange={(e) => setLabel(e.target.value)}
        helperText="kept as a claim, never as a fact"
        sx={{ gridColumn: "1 / -1" }}
      />
      {more ? (
        <>
          {wire !== "" && (
            <>
              <Choice label="Cable" value={cable} options={LISTS.cables} onChange={setCable} />
              <Choice label="Heat marking" value={terminals} options={LISTS.terminals} onChange={setTerminals} />
            </>
          )}
          <Choice
            label="Housing"
            value={details.housing ?? ""}
            options={HOUSINGS}
            onChange={(housing) => change({ housing: housing === "" ? null : housing })}
          />
          {poles > 1 ? (
            <Choice label="Opens together by" value={details.tie} options={TIES} onChange={(tie) => change({ tie })} />
          ) : (
            <Choice
              label="Rejection hook"
              value={yesNo(details.hooked)}
              options={YES_NO}
              onChange={(hooked: YesNo) => change({ hooked: fromYesNo(hooked) })}
              help="a tandem that fits notches only"
            />
          )}
          <TextField
            label="Type, as printed"
            value={details.type_name}
            onChange={(e) => change({ type_name: e.target.value })}
          />
          <TextField
            label="Interrupting rating, kA"
            value={details.interrupting_ka ?? ""}
            onChange={(e) => change({ interrupting_ka: numberOrNull(e.target.value.replace(/[^0-9]/g, "")) })}
            slotProps={{ htmlInput: { inputMode: "numeric" } }}
          />
          <CountChoice
            label="Conductors under a terminal"
            value={terminal.under}
            onChange={(under) => change({ terminal: { ...terminal, under } })}
          />
          <CountChoice
            label="Terminal is marked for"
            value={terminal.listed}
            onChange={(listed) => change({ terminal: { ...terminal, listed } })}
          />
          {(terminal.under ?? 1) > 1 && (
            <Choice
              label="Same size and metal"
              value={yesNo(terminal.alike)}
              options={YES_NO}
              onChange={(alike: YesNo) => change({ terminal: { ...terminal, alike: fromYesNo(alike) } })}
            />
          )}
          <TextField
            label="Torque on the label, lb-in"
            value={torque}
            onChange={(e) => setTorque(e.target.value)}
            slotProps={{ htmlInput: { inputMode: "decimal", pattern: "[0-9]+(\\.[0-9]+)?" } }}
            helperText={
              torque === "" ? "the label's value, or nothing" : `${(Number(torque) * 0.112985).toFixed(2)} N·m`
            }
          />
          {kind !== "standard" && (
            <Choice
              label="Its neutral"
              value={details.neutral ?? ""}
              options={LEADS}
              onChange={(lead) => change({ neutral: lead === "" ? null : lead })}
            />
          )}
          <TextField
            label="Said to feed the panel"
            value={details.feeds}
            onChange={(e) => change({ feeds: e.target.value })}
            helperText="until that panel is described"
          />
          <Choice
            label="Is it the main, back-fed?"
            value={details.back_fed_main ? "yes" : "no"}
            options={[
              ["no", "no"],
              ["yes", "yes"],
            ]}
            onChange={(main) => change({ back_fed_main: main === "yes" })}
          />
          {details.back_fed_main && (
            <Choice
              label="Held by a fastener"
              value={yesNo(details.fastened)}
              options={YES_NO}
              onChange={(fastened: YesNo) => change({ fastened: fromYesNo(fastened) })}
            />
          )}
        </>
      ) : (
        <Button color="inherit" onClick={() => setMore(true)} sx={{ gridColumn: "1 / -1", justifySelf: "start" }}>
          More that was read
        </Button>
      )}
      {error !== null && (
        <Alert severity="error" variant="outlined" sx={{ gridColumn: "1 / -1" }}>
          {wordsOf(error)}
        </Alert>
      )}
      <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 1.5, flexWrap: "wrap" }}>
        <Button type="submit" variant="contained">
          {blade ? "Save" : "Put the breaker in"}
        </Button>
        {onCancel && (
          <Button color="inherit" onClick={onCancel}>
            Leave as it was
          </Button>
        )}
      </Box>
    </Box>
  );
}

const COUNTS = [
  ["", "not read"],
  ["1", "1"],
  ["2", "2"],
  ["3", "3"],
  ["4", "4"],
] as const;

interface CountProps {
  label: string;
  value: number | null | undefined;
  onChange: (value: number | null) => void;
}

function CountChoice({ label, value, onChange }: CountProps) {
  const shown = COUNTS.find(([count]) => count === String(value ?? ""))?.[0] ?? "";
  return <Choice label={label} value={shown} options={COUNTS} onChange={(count) => onChange(numberOrNull(count))} />;
}
