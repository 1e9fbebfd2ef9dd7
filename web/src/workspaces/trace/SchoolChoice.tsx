import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { School, TraceView } from "../../api/client";
import { useSchools } from "../../api/queries";
import { Block } from "../../parts/Block";

const SCHOOLS: [School, string][] = [
  ["one_at_a_time", "One breaker at a time"],
  ["several_off", "Several off at once, the shortest"],
];

interface Props {
  home: string;
  view: TraceView;
  onSchool: (school: School) => void;
  onAlone: (alone: boolean) => void;
}

/** How to trace, with what each way would take from here. */
export function SchoolChoice({ home, view, onSchool, onAlone }: Props) {
  const [asked, setAsked] = useState(false);
  const schools = useSchools(home, asked, view.alone);
  const minutes = (which: School) => schools.data?.find((s) => s.school === which)?.minutes;
  return (
    <Block title="How to trace">
      <RadioGroup value={view.school} onChange={(_, next) => onSchool(next as School)} aria-label="How to trace">
        {SCHOOLS.map(([which, words]) => {
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
      <FormControlLabel
        control={<Checkbox checked={view.alone} onChange={(e) => onAlone(e.target.checked)} />}
        label="I am alone: I switch and look"
      />
      {schools.data === undefined && (
        <Button variant="outlined" onClick={() => setAsked(true)} disabled={schools.isFetching}>
          {schools.isFetching ? "Working it out" : "What each would take"}
        </Button>
      )}
      {schools.data !== undefined && (
        <Typography variant="body2" color="text.secondary">
          For {view.alone ? "one person" : "two people"} and one tester, after every point was seen lit; the looks that
          show that a breaker latched come on top. Either way a point is proven only by one breaker alone.
        </Typography>
      )}
    </Block>
  );
}
