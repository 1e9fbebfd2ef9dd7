import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  help?: string;
  wide?: boolean;
}

/** One of a few words. */
export function Choice<T extends string>({ label, value, options, onChange, help, wide = false }: Props<T>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
      helperText={help}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={wide ? { gridColumn: "1 / -1" } : undefined}
    >
      {options.map(([option, words]) => (
        <MenuItem key={option} value={option}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
