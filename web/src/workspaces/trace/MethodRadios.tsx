import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import type { Method, MethodMinutes } from "../../api/client";
import { LISTS } from "../../api/generated/lists";

interface Props {
  chosen: Method;
  /** There is a tone tracer. */
  tone: boolean;
  /** What each would take, where that is known. */
  minutes: MethodMinutes[] | undefined;
  /** Said behind the minutes. */
  left: string;
  onChoose: (method: Method) => void;
}

/** The methods of tracing, each with its minutes. */
export function MethodRadios({ chosen, tone, minutes, left, onChoose }: Props) {
  const offered = LISTS.methods.filter(([which]) => which !== "tone_tracer" || tone || chosen === which);
  return (
    <RadioGroup
      value={chosen}
      onChange={(_, next) => {
        onChoose(next as Method);
      }}
      aria-label="How to trace"
    >
      {offered.map(([which, words]) => {
        const takes = minutes?.find((one) => one.method === which)?.minutes;
        return (
          <FormControlLabel
            key={which}
            value={which}
            control={<Radio />}
            label={takes === undefined ? words : `${words}: about ${Math.max(1, Math.round(takes))} min${left}`}
          />
        );
      })}
    </RadioGroup>
  );
}
