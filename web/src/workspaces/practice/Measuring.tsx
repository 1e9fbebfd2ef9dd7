import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, MeasureMarks } from "../../api/client";
import { useMeasureMarks } from "../../api/queries";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { amps } from "../../parts/words";
import { Mark, MarkList } from "./Mark";
import { minutes } from "./minutes";

/** How good the survey of this made-up house is. */
export function MeasureMarksOf({ home }: { home: HomeOverview }) {
  const [reveal, setReveal] = useState(false);
  const marks = useMeasureMarks(home.id, reveal);
  return (
    <Loaded query={marks} what="marks">
      {(m: MeasureMarks) => (
        <Block title={home.name}>
          <MarkList>
            <Mark name="Time">
              {minutes(m.minutes)} for {m.readings} readings. Somebody who reads only what decides needs{" "}
              {minutes(m.expert_minutes)}; reading every appliance {minutes(m.all_minutes)}.
            </Mark>
            <Mark name="Decisions">
              {m.settled} of {m.circuits} circuits settled
              {reveal ? `, ${m.wrong} of them wrongly` : "; which are right is shown with the truth"}
            </Mark>
            <Mark name="Safety">{m.safety.length === 0 ? "Nothing that must not happen." : m.safety.join(" ")}</Mark>
            {m.fault_found != null && (
              <Mark name="A fault">
                {m.fault_found
                  ? "Something is wrong in the house, and your readings show it."
                  : "Something may be wrong in the house; no reading of yours shows it."}
                {m.fault != null && ` ${m.fault}`}
              </Mark>
            )}
          </MarkList>
          <Typography variant="body2" color="text.secondary" sx={{ my: 1.5 }}>
            Minutes are counted by the usual cost of every reading, not by your clock.
          </Typography>
          {!reveal && (
            <Button variant="outlined" onClick={() => setReveal(true)}>
              I am done: show what they take
            </Button>
          )}
          {reveal && <Truth marks={m} />}
        </Block>
      )}
    </Loaded>
  );
}

function Truth({ marks }: { marks: MeasureMarks }) {
  return (
    <Box component="ul" aria-label="What the circuits carry" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {marks.truth.map((one) => (
        <Box component="li" key={one.breaker} sx={{ borderBottom: `1px solid ${tone("rule")}`, py: 0.5 }}>
          {one.number}, {one.about}: <b>{amps(one.amps)} A</b>, said to be {amps(one.said[0] ?? 0)} to{" "}
          {amps(one.said[1] ?? 0)} A
          {one.right === false && (
            <Typography component="span" color="error" sx={{ fontWeight: 700 }}>
              {" "}
              settled wrongly
            </Typography>
          )}
          {one.right == null && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              {" "}
              not settled
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
