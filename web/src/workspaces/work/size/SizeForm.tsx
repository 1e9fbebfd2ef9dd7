import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import type { HomeOverview, Units } from "../../../api/client";
import { Choice } from "../../../parts/Choice";
import { Fold } from "../../../parts/Fold";
import { FEEDS, figureOf, longUnit, shortUnit, type Draft } from "./asked";

const ENDS = [
  ["wired", "wired in, no plug"],
  ["cord", "one receptacle for it"],
  ["several", "receptacles for whatever is plugged in"],
] as const;
const VOLTS = [
  ["120", "120 V"],
  ["208", "208 V"],
  ["240", "240 V"],
] as const;
const METALS = [
  ["copper", "copper"],
  ["aluminum", "aluminum"],
] as const;
const CABLES = [
  ["nm", "nonmetallic cable"],
  ["conduit", "single wires in conduit"],
  ["armored", "armored cable"],
  ["uf", "underground feeder cable"],
  ["se", "service-entrance cable"],
  ["not_read", "not known yet"],
] as const;
const TERMINALS = [
  ["unread", "not read"],
  ["read_75c", "75 °C at both ends"],
] as const;
const INSULATIONS = [
  ["c90", "90 °C (THHN, within new NM cable)"],
  ["c75", "75 °C"],
  ["c60", "60 °C, or not read"],
] as const;

interface Props {
  home: HomeOverview;
  units: Units;
  draft: Draft;
  onChange: (change: Partial<Draft>) => void;
}

/** What the circuit feeds, where it runs and what it is made of. */
export function SizeForm({ home, units, draft, onChange }: Props) {
  const amount = (name: keyof Draft, label: string, help?: string) => (
    <TextField
      label={label}
      value={draft[name]}
      onChange={(event) => onChange({ [name]: event.target.value.replace(",", ".").replace(/[^0-9.]/g, "") })}
      helperText={help}
      autoComplete="off"
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
    />
  );
  const rooms = [["", "not said"], ...home.rooms.map((room) => [room.id, room.name] as const)] as const;
  return (
    <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr", md: "1fr" } }}>
      <TextField
        label="What the circuit is for"
        value={draft.name}
        placeholder="kiln"
        onChange={(event) => onChange({ name: event.target.value })}
        autoComplete="off"
        slotProps={{ htmlInput: { maxLength: 60 }, inputLabel: { shrink: true } }}
      />
      <Choice label="It feeds" value={draft.feeds} options={FEEDS} onChange={(feeds) => onChange({ feeds })} />
      {amount("figure", figureOf(draft.feeds), draft.feeds === "motor" ? "1, 0.5, 0.75" : undefined)}
      {draft.feeds === "cooling" && amount("most", "Maximum fuse or breaker, A")}
      {draft.feeds === "plain" && (
        <Tick
          label="For three hours or more at a time"
          on={draft.continuous}
          onChange={(continuous) => onChange({ continuous })}
        />
      )}
      <Choice label="Voltage" value={draft.volts} options={VOLTS} onChange={(volts) => onChange({ volts })} />
      <Choice label="It ends in" value={draft.ends} options={ENDS} onChange={(ends) => onChange({ ends })} />
      {draft.volts !== "120" && (
        <Tick label="Its plate asks for a neutral" on={draft.neutral} onChange={(neutral) => onChange({ neutral })} />
      )}
      <Choice
        label="The room it ends in"
        value={draft.room}
        options={rooms}
        onChange={(room) => onChange({ room })}
        help="for GFCI and AFCI, and for the length by the plan"
      />
      {home.panels.length > 1 && (
        <Choice
          label="From which panel"
          value={draft.panel}
          options={home.panels.map((view) => [view.panel.id, view.panel.name] as const)}
          onChange={(panel) => onChange({ panel })}
        />
      )}
      {amount("length", `Length one way, ${longUnit(units)}`, "left open: by the plan, where both ends are drawn")}
      <Fold label="cable, heat, bundling" onPage>
        <Choice label="Cable" value={draft.cable} options={CABLES} onChange={(cable) => onChange({ cable })} />
        <Choice label="Metal" value={draft.metal} options={METALS} onChange={(metal) => onChange({ metal })} />
        <Choice
          label="Terminals are marked"
          value={draft.terminals}
          options={TERMINALS}
          onChange={(terminals) => onChange({ terminals })}
        />
        <Choice
          label="Insulation is marked"
          value={draft.insulation}
          options={INSULATIONS}
          onChange={(insulation) => onChange({ insulation })}
        />
        {amount("carrying", "Wires together that carry current", "its own among them")}
        <TextField
          label="Air at its warmest, °C"
          value={draft.celsius}
          onChange={(event) => onChange({ celsius: event.target.value.replace(/[^0-9-]/g, "") })}
          helperText="30 in a room, 50 to 60 in an attic in summer"
          autoComplete="off"
        />
      </Fold>
      <Fold label="the space before the panel" onPage>
        {amount("deep", `Deep, ${shortUnit(units)}`)}
        {amount("wide", `Wide, ${shortUnit(units)}`)}
        {amount("high", `High, ${shortUnit(units)}`)}
      </Fold>
    </Box>
  );
}

function Tick({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <FormControlLabel
      label={label}
      control={<Checkbox checked={on} onChange={(event) => onChange(event.target.checked)} />}
    />
  );
}
