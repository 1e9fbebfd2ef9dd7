import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import type { TraceSetup } from "../../api/client";

interface Props {
  setup: TraceSetup;
  onSetup: (setup: TraceSetup) => void;
}

/** Who traces, and with what. */
export function Crew({ setup, onSetup }: Props) {
  return (
    <Stack spacing={0.5} useFlexGap sx={{ mt: 2, mb: 1 }}>
      <FormControlLabel
        control={<Checkbox checked={setup.alone} onChange={(e) => onSetup({ ...setup, alone: e.target.checked })} />}
        label="I am alone: I switch and look"
      />
      {!setup.alone && (
        <TextField
          select
          size="small"
          label="People who walk and look"
          value={setup.walkers ?? 1}
          onChange={(e) => onSetup({ ...setup, walkers: Number(e.target.value) })}
          helperText="Beside the one at the panel. Everyone who comes in as a helper gets a room of their own."
          sx={{ mt: 2 }}
        >
          {[1, 2, 3, 4, 5, 6].map((count) => (
            <MenuItem key={count} value={count}>
              {count}
            </MenuItem>
          ))}
        </TextField>
      )}
      <TextField
        select
        size="small"
        label="Testers and lamps"
        value={setup.testers}
        onChange={(e) => onSetup({ ...setup, testers: Number(e.target.value) })}
        helperText="All but one can be left plugged in."
        sx={{ mt: 2 }}
      >
        {[...new Set([1, 2, 3, 4, 5, 6, 8, 10, 12, setup.testers])]
          .sort((a, b) => a - b)
          .map((count) => (
            <MenuItem key={count} value={count}>
              {count}
            </MenuItem>
          ))}
      </TextField>
      {setup.alone && (
        <FormControlLabel
          control={
            <Checkbox checked={setup.radio === true} onChange={(e) => onSetup({ ...setup, radio: e.target.checked })} />
          }
          label="I hear a radio or buzzer at the panel, from any room"
        />
      )}
      <FormControlLabel
        control={<Checkbox checked={setup.tone} onChange={(e) => onSetup({ ...setup, tone: e.target.checked })} />}
        label="There is a tone sender and receiver"
      />
      <FormControlLabel
        control={<Checkbox checked={setup.phones} onChange={(e) => onSetup({ ...setup, phones: e.target.checked })} />}
        label="Everybody has a phone with their step"
      />
    </Stack>
  );
}
