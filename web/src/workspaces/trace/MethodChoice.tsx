import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Method, TraceSetup } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { useMethods } from "../../api/queries";
import { Block } from "../../parts/Block";

interface Props {
  home: string;
  setup: TraceSetup;
  onSetup: (setup: TraceSetup) => void;
}

/** How it is traced, by whom and with what; with the minutes that each method would take from here. */
export function MethodChoice({ home, setup, onSetup }: Props) {
  const [asked, setAsked] = useState(false);
  const methods = useMethods(home, asked);
  const minutes = (which: Method) => methods.data?.find((s) => s.method === which)?.minutes;
  const offered = LISTS.methods.filter(([which]) => which !== "tone_tracer" || setup.tone || setup.school === which);
  return (
    <Block title="How to trace">
      <RadioGroup
        value={setup.school}
        onChange={(_, next) => onSetup({ ...setup, school: next as Method })}
        aria-label="How to trace"
      >
        {offered.map(([which, words]) => {
          const takes = minutes(which);
          return (
            <FormControlLabel
              key={which}
              value={which}
              control={<Radio />}
              label={takes === undefined ? words : `${words}: about ${Math.max(1, Math.round(takes))} min left`}
            />
          );
        })}
      </RadioGroup>
      <Stack spacing={0.5} useFlexGap sx={{ mt: 2, mb: 1 }}>
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
        <FormControlLabel
          control={<Checkbox checked={setup.alone} onChange={(e) => onSetup({ ...setup, alone: e.target.checked })} />}
          label="I am alone: I switch and look"
        />
        {setup.alone && (
          <FormControlLabel
            control={
              <Checkbox
                checked={setup.radio === true}
                onChange={(e) => onSetup({ ...setup, radio: e.target.checked })}
              />
            }
            label="I hear a radio or buzzer at the panel, from any room"
          />
        )}
        <FormControlLabel
          control={<Checkbox checked={setup.tone} onChange={(e) => onSetup({ ...setup, tone: e.target.checked })} />}
          label="There is a tone sender and receiver"
        />
        <FormControlLabel
          control={
            <Checkbox checked={setup.phones} onChange={(e) => onSetup({ ...setup, phones: e.target.checked })} />
          }
          label="Everybody has a phone with their step"
        />
      </Stack>
      {methods.data === undefined && (
        <Button variant="outlined" onClick={() => setAsked(true)} disabled={methods.isFetching}>
          {methods.isFetching ? "Working it out" : "What each would take"}
        </Button>
      )}
      {methods.data !== undefined && (
        <Typography variant="body2" color="text.secondary">
          For{" "}
          {setup.alone
            ? "one person"
            : (setup.walkers ?? 1) === 1
              ? "two people"
              : `${(setup.walkers ?? 1) + 1} people`}{" "}
          at your own pace, after every point was seen lit, with the looks that show that breakers latched. With every
          method a point is proven by one breaker alone.
        </Typography>
      )}
    </Block>
  );
}
