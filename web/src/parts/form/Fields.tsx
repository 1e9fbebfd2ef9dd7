import Checkbox from "@mui/material/Checkbox";
import FormControl from "@mui/material/FormControl";
import FormControlLabel from "@mui/material/FormControlLabel";
import FormGroup from "@mui/material/FormGroup";
import FormLabel from "@mui/material/FormLabel";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { useController, type FieldPathByValue, type FieldValues } from "react-hook-form";
import { Choice } from "../Choice";
import { YES_NO, type YesNo } from "../yesNo";

interface Base {
  label: string;
  help?: string | undefined;
  /** Over the whole width of a form in two columns. */
  wide?: boolean;
}

export interface TextProps<T extends FieldValues> extends Base {
  name: FieldPathByValue<T, string>;
  placeholder?: string;
  required?: boolean;
  multiline?: boolean;
  autoFocus?: boolean;
  upper?: boolean;
}

export interface AmountProps<T extends FieldValues> extends TextProps<T> {
  /** `A`, `V`, `mm`; none for a count. */
  unit?: string;
  /** A whole number. */
  whole?: boolean;
}

export interface ChoiceProps<T extends FieldValues, V extends string> extends Base {
  name: FieldPathByValue<T, V>;
  options: readonly (readonly [V, string])[];
}

export interface YesNoProps<T extends FieldValues> extends Base {
  name: FieldPathByValue<T, YesNo>;
}

export interface TickProps<T extends FieldValues> {
  label: ReactNode;
  name: FieldPathByValue<T, boolean>;
  wide?: boolean;
}

export interface SeveralProps<T extends FieldValues> extends Base {
  name: FieldPathByValue<T, string[]>;
  options: readonly (readonly [string, string])[];
}

const across = (wide: boolean) => (wide ? { gridColumn: "1 / -1" } : {});

/** A line of words, or several. */
export function Text<T extends FieldValues>({ name, label, help, wide = false, upper = false, ...rest }: TextProps<T>) {
  const { field, fieldState } = useController<T>({ name });
  const { ref, onChange, ...own } = field;
  return (
    <TextField
      {...own}
      {...rest}
      onChange={(event) => onChange(upper ? event.target.value.toUpperCase() : event.target.value)}
      inputRef={ref}
      label={label}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? help}
      autoComplete="off"
      sx={across(wide)}
    />
  );
}

/** What a number may look like while it is typed; a comma counts as a point. */
const numeric = (text: string, whole: boolean) =>
  whole ? text.replace(/[^0-9]/g, "") : text.replace(",", ".").replace(/[^0-9.]/g, "");

/** A number, with its unit. */
export function Amount<T extends FieldValues>(props: AmountProps<T>) {
  const { name, label, unit, whole = false, help, wide = false, required, autoFocus, placeholder } = props;
  const { field, fieldState } = useController<T>({
    name,
    rules: {
      validate: (text: string) =>
        (text === "" && !required) || (text !== "" && Number.isFinite(Number(text))) || "Type a number.",
    },
  });
  const { ref, onChange, ...own } = field;
  return (
    <TextField
      {...own}
      onChange={(event) => onChange(numeric(event.target.value, whole))}
      inputRef={ref}
      label={unit === undefined ? label : `${label}, ${unit}`}
      required={required}
      autoFocus={autoFocus}
      placeholder={placeholder}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? help}
      autoComplete="off"
      slotProps={{ htmlInput: { inputMode: whole ? "numeric" : "decimal" } }}
      sx={across(wide)}
    />
  );
}

/** One of a few words. */
export function One<T extends FieldValues, V extends string>({ name, ...rest }: ChoiceProps<T, V>) {
  const { field } = useController<T>({ name });
  return <Choice {...rest} value={field.value} onChange={field.onChange} />;
}

/** Yes, no, or nobody has looked. */
export function YesOrNo<T extends FieldValues>({ name, ...rest }: YesNoProps<T>) {
  const { field } = useController<T>({ name });
  return <Choice {...rest} value={field.value} options={YES_NO} onChange={field.onChange} />;
}

/** Yes or no. */
export function Tick<T extends FieldValues>({ name, label, wide = false }: TickProps<T>) {
  const { field } = useController<T>({ name });
  return (
    <FormControlLabel
      label={label}
      sx={across(wide)}
      control={<Checkbox checked={field.value} onChange={(event) => field.onChange(event.target.checked)} />}
    />
  );
}

/** None, one or several of a few words. */
export function Several<T extends FieldValues>({ name, label, options, wide = false }: SeveralProps<T>) {
  const { field } = useController<T>({ name });
  const chosen: readonly string[] = field.value;
  const change = (option: string, on: boolean) =>
    // In the order of the options, whatever was ticked first.
    field.onChange(options.map(([each]) => each).filter((each) => (each === option ? on : chosen.includes(each))));
  return (
    <FormControl component="fieldset" sx={across(wide)}>
      <FormLabel component="legend" sx={{ typography: "body2" }}>
        {label}
      </FormLabel>
      <FormGroup row>
        {options.map(([option, words]) => (
          <FormControlLabel
            key={option}
            label={words}
            control={
              <Checkbox checked={chosen.includes(option)} onChange={(event) => change(option, event.target.checked)} />
            }
          />
        ))}
      </FormGroup>
    </FormControl>
  );
}
