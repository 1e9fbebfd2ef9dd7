import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Method, TraceSetup } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { useMethods } from "../../api/queries";
import { Block } from "../../parts/Block";
import { Crew } from "./Crew";

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
      <Crew setup={setup} onSetup={onSetup} />
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
