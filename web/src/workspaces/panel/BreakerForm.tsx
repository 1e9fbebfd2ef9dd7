import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState, type SyntheticEvent } from "react";
import type { Blade, Fact, HomeOverview, Wire } from "../../api/client";
import { newId, useRecord } from "../../api/record";
import { wordsOf } from "../../app/useNotice";

type Protection = Blade["protection"];
const KINDS: [Protection, string][] = [
  ["standard", "Standard"],
  ["gfci", "GFCI"],
  ["afci", "AFCI"],
  ["dual_function", "Dual function"],
];
const GAUGES: Wire["gauge"][] = ["14", "12", "10", "8", "6", "4", "3", "2", "1"];

interface Props {
  home: HomeOverview;
  panel: string;
  blade: Blade | null;
  number: string;
  onDone: (breaker: string) => void;
  onCancel?: () => void;
}

/** One breaker: where, how large, what kind, what the old card says. */
export function BreakerForm({ home, panel, blade, number, onDone, onCancel }: Props) {
  const record = useRecord(home.id);
  const [at, setAt] = useState(number);
  const [amps, setAmps] = useState(blade ? String(blade.amps) : "15");
  const [kind, setKind] = useState<Protection>(blade?.protection ?? "standard");
  const [gauge, setGauge] = useState<Wire["gauge"] | "">(blade?.wire?.gauge ?? "");
  const [metal, setMetal] = useState<"copper" | "aluminum">(blade?.wire?.metal ?? "copper");
  const [label, setLabel] = useState(blade?.claim ?? "");
  const [error, setError] = useState<unknown>(null);

  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    const breaker = blade?.breaker ?? newId();
    const slots = at.split("-").map((slot) => slot.trim());
    const wire: Wire | null = gauge === "" ? null : { gauge, metal, terminals: blade?.wire?.terminals ?? "unread" };
    const facts: Fact[] = [
      {
        kind: "breaker_placed",
        breaker,
        panel,
        at: slots,
        amps: Number(amps),
        protection: kind,
        ...(wire && { wire }),
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
        helperText="5, 5-7 or 14a"
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
      <TextField select label="Kind" value={kind} onChange={(e) => setKind(e.target.value as Protection)}>
        {KINDS.map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Wire, if read"
        value={gauge === "" ? "" : `${gauge} ${metal}`}
        onChange={(e) => {
          const [size, of] = e.target.value.split(" ");
          setGauge((size ?? "") as Wire["gauge"] | "");
          setMetal(of === "aluminum" ? "aluminum" : "copper");
        }}
      >
        <MenuItem value="">not read</MenuItem>
        {GAUGES.map((size) => (
          <MenuItem key={size} value={`${size} copper`}>
            {size} AWG copper
          </MenuItem>
        ))}
        {GAUGES.slice(1).map((size) => (
          <MenuItem key={`al ${size}`} value={`${size} aluminum`}>
            {size} AWG aluminum
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="What the old card says"
        value={label}
        onChange={(e) => setLabel(e.target.value)}
        helperText="kept as a claim, never as a fact"
        sx={{ gridColumn: "1 / -1" }}
      />
      {error !== null && (
        <Alert severity="error" variant="outlined" sx={{ gridColumn: "1 / -1" }}>
          {wordsOf(error)}
        </Alert>
      )}
      <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="contained">
          {blade ? "Keep these details" : "Put the breaker in"}
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
