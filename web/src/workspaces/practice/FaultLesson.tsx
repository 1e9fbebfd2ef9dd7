import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { FaultMarks, FaultShown, HomeOverview } from "../../api/client";
import { useFaultMarks, useFaultSeen } from "../../api/faultLesson";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { Display } from "./Display";
import { Mark, MarkList } from "./Mark";
import { minutes } from "./minutes";

/** In a made-up house: what is seen where the next look is made. It is answered as in a real house. */
export function FaultOnScreen({ home }: { home: string }) {
  const seen = useFaultSeen(home, true);
  // Nothing is looked at any more.
  if (seen.data === null) return null;
  return (
    <Loaded query={{ ...seen, data: seen.data }} what="instrument">
      {(shown: FaultShown) => (
        <Block title="What is seen there">
          <Display text={shown.words} />
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            A made-up house: nothing real is touched. Answer below what is seen here
            {shown.volts != null && `; the meter shows ${shown.volts.toFixed(1)} V`}. Instruments err now and then.
          </Typography>
        </Block>
      )}
    </Loaded>
  );
}

/** How good the search for the fault is. */
export function FaultMarksOf({ home }: { home: HomeOverview }) {
  const [reveal, setReveal] = useState(false);
  const marks = useFaultMarks(home.id, reveal);
  return (
    <Loaded query={marks} what="marks">
      {(m: FaultMarks) => (
        <Block title={home.name}>
          <Button
            variant={m.over ? "outlined" : "contained"}
            component={Link}
            to={`/h/${home.id}/trips/practice`}
            sx={{ mb: 1.5 }}
          >
            {m.over ? "To what was wrong" : "Look for the fault"}
          </Button>
          {m.looks > 0 && (
            <MarkList>
              <Mark name="Time">
                {minutes(m.minutes)} in {m.looks} {m.looks === 1 ? "look" : "looks"}.
                {m.right != null && ` The program itself takes ${minutes(m.own_minutes)} in ${m.own_looks}.`}
              </Mark>
              <Mark name="Resets">{m.resets === 0 ? "none" : m.resets}</Mark>
              <Mark name="Read">
                {m.misread === 0 ? "Every answer is what was shown." : `${m.misread} answers are not what was shown.`}
              </Mark>
              <Mark name="Safety">
                {m.safety.length === 0 ? "Nothing that could have hurt somebody." : m.safety.join(" ")}
              </Mark>
              {m.right != null && <Mark name="Found">{m.right ? "That was it." : "That was not it."}</Mark>}
              {m.truth != null && <Mark name="It was">{m.truth}</Mark>}
            </MarkList>
          )}
          {m.looks === 0 && m.truth != null && <Typography>It was: {m.truth}.</Typography>}
          <Typography variant="body2" color="text.secondary" sx={{ my: 1.5 }}>
            Minutes are counted by the usual time of every look, not by your clock.
          </Typography>
          {m.truth == null && (
            <Button variant="outlined" onClick={() => setReveal(true)}>
              I give up: show what it was
            </Button>
          )}
        </Block>
      )}
    </Loaded>
  );
}
