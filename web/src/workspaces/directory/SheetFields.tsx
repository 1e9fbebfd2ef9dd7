import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { Choice } from "../../parts/Choice";
import type { LabelSheet } from "./sheets";

const LENGTHS: readonly (readonly [keyof LabelSheet, string])[] = [
  ["paperWidth", "Paper, width"],
  ["paperHeight", "Paper, height"],
  ["left", "Left margin"],
  ["top", "Upper margin"],
  ["width", "Label, width"],
  ["height", "Label, height"],
  ["gapX", "Gap side by side"],
  ["gapY", "Gap up and down"],
];
const COUNTS: readonly (readonly [keyof LabelSheet, string])[] = [
  ["columns", "Labels side by side"],
  ["rows", "Labels up and down"],
];
const UNITS = [
  ["mm", "mm"],
  ["in", "in"],
] as const;
type Unit = (typeof UNITS)[number][0];

interface Props {
  sheet: LabelSheet;
  onSheet: (sheet: LabelSheet) => void;
}

const inUnit = (mm: number, unit: Unit) => (unit === "mm" ? String(mm) : String(Math.round((mm / 25.4) * 1000) / 1000));

/** Every length of a sheet of labels, in millimeters or inches. */
export function SheetFields({ sheet, onSheet }: Props) {
  const [unit, setUnit] = useState<Unit>("mm");
  const set = (key: keyof LabelSheet, text: string, length: boolean) => {
    const number = Number(text.replace(",", "."));
    if (text.trim() === "" || !Number.isFinite(number) || number < 0) return;
    const value = length ? (unit === "mm" ? number : number * 25.4) : Math.min(100, Math.max(1, Math.round(number)));
    onSheet({ ...sheet, [key]: value });
  };
  return (
    <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "1fr 1fr" }}>
      <Choice label="Lengths in" value={unit} options={UNITS} onChange={setUnit} wide />
      {LENGTHS.map(([key, label]) => (
        <Field
          key={`${key} ${unit}`}
          label={`${label}, ${unit}`}
          value={inUnit(sheet[key], unit)}
          onValue={(text) => set(key, text, true)}
        />
      ))}
      {COUNTS.map(([key, label]) => (
        <Field key={key} label={label} value={String(sheet[key])} onValue={(text) => set(key, text, false)} />
      ))}
    </Box>
  );
}

/** A number that counts once the field is left. */
function Field({ label, value, onValue }: { label: string; value: string; onValue: (text: string) => void }) {
  const [text, setText] = useState<string | null>(null);
  return (
    <TextField
      label={label}
      value={text ?? value}
      autoComplete="off"
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== null) onValue(text);
        setText(null);
      }}
    />
  );
}
