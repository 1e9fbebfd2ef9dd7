import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";

interface Props {
  label: string;
  onEnter: (volts: number) => void;
  onLeave?: () => void;
}

/** What a meter shows; the program says whether that is lit, dark, neither or too much. */
export function VoltsEntry({ label, onEnter, onLeave }: Props) {
  const [text, setText] = useState("");
  const volts = Number(text.trim().replace(",", "."));
  const fits = text.trim() !== "" && volts >= 0 && volts <= 1000;
  const wrong = text.trim() !== "" && !fits;
  return (
    <Stack
      component="form"
      direction="row"
      spacing={1}
      sx={{ py: 1, alignItems: "flex-start" }}
      onSubmit={(event) => {
        event.preventDefault();
        if (fits) onEnter(volts);
      }}
      onKeyDown={(event) => event.key === "Escape" && onLeave?.()}
    >
      <TextField
        autoFocus={onLeave !== undefined}
        size="small"
        sx={{ flex: 1 }}
        label={label}
        value={text}
        error={wrong}
        helperText={wrong ? "0 to 1000, as the meter shows it." : undefined}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off" } }}
      />
      <Button type="submit" variant="contained" disabled={!fits}>
        Enter
      </Button>
      {onLeave && (
        <Button variant="outlined" onClick={onLeave}>
          Leave
        </Button>
      )}
    </Stack>
  );
}
