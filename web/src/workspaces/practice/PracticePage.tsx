import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { AllHomes, HomeInList, HomeOverview, Marks, Reading } from "../../api/client";
import { readInstrument, useHomes, useMarks } from "../../api/queries";
import { tone } from "../../app/theme";
import { useNotice } from "../../app/useNotice";
import { useThisHome } from "../../app/useThisHome";
import { breakersOf } from "../../drawing/place";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { FaultMarksOf } from "./FaultLesson";
import { FIRST_SCREEN } from "./firstScreen";
import { Lessons } from "./Lessons";
import { MakeHouse } from "./MakeHouse";
import { Mark, MarkList } from "./Mark";
import { MeasureMarksOf } from "./Measuring";
import { minutes } from "./minutes";
import { ReadingShown } from "./ReadingShown";
import { WorkMarksOf } from "./WorkLesson";

/** Made-up houses: how good the trace of this one is, and others to practice on. */
export function PracticePage() {
  const home = useThisHome();
  const homes = useHomes();
  const lesson = home.practice === null || home.practice === undefined ? undefined : (home.practice.lesson ?? "trace");
  return (
    <Box sx={{ maxWidth: 860 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Practice
      </Typography>
      <Stack spacing={2}>
        {lesson === "measure" && <MeasureMarksOf home={home} />}
        {lesson === "work" && <WorkMarksOf home={home} />}
        {lesson === "fault" && <FaultMarksOf home={home} />}
        {lesson === "trace" && <MarksOf home={home} />}
        {lesson === "trace" && <Clamp key={home.seq} home={home} />}
        <Lessons home={home.id} />
        <MakeHouse />
        <Loaded query={homes} what="homes">
          {(all: AllHomes) => <Others homes={all.homes.filter((h) => h.practice && h.id !== home.id)} />}
        </Loaded>
      </Stack>
    </Box>
  );
}

function Others({ homes }: { homes: HomeInList[] }) {
  if (homes.length === 0) return null;
  return (
    <Block title="Other made-up houses">
      {homes.map((home) => (
        <Typography key={home.id}>
          <Link to={`/h/${home.id}/${FIRST_SCREEN[home.practice?.lesson ?? "trace"]}`}>{home.name}</Link>,{" "}
          {home.practice?.lesson === "measure" && "to be measured"}
          {home.practice?.lesson === "work" && "to work on"}
          {home.practice?.lesson === "fault" && "with a fault"}
          {(home.practice?.lesson ?? "trace") === "trace" &&
            `${home.progress.proven} of ${home.progress.points} proven`}
        </Typography>
      ))}
    </Block>
  );
}

function MarksOf({ home }: { home: HomeOverview }) {
  const [reveal, setReveal] = useState(false);
  const marks = useMarks(home.id, reveal);
  return (
    <Loaded query={marks} what="marks">
      {(m: Marks) => (
        <Block title={home.name}>
          <MarkList>
            <Mark name="Time">
              {minutes(m.minutes)} after seeing everything lit ({minutes(m.first_minutes)}).
              {m.handles > 0 &&
                m.oracle_minutes > 0 &&
                ` Somebody who knows the wiring needs ${minutes(m.oracle_minutes)}: ${(m.minutes / m.oracle_minutes).toFixed(1)} times that.`}
            </Mark>
            <Mark name="Acts">
              {m.looks} looks, handles moved {m.handles} times
            </Mark>
            <Mark name="Certainty">
              {reveal
                ? `${m.right} of ${m.points} proven rightly, ${m.wrong} wrongly, ${m.by_exclusion} by exclusion, ${m.open} open`
                : `${m.right + m.wrong} of ${m.points} proven, ${m.open} open; which are right is shown with the wiring`}
              {reveal && m.forgotten > 0 && `; ${m.forgotten} in the house are still missing from the list`}
            </Mark>
            <Mark name="Safety">
              {m.safety.length === 0
                ? "No breaker that must stay on was off, and no clock ran out."
                : m.safety.join(" ")}
            </Mark>
          </MarkList>
          <Typography variant="body2" color="text.secondary" sx={{ my: 1.5 }}>
            Minutes are counted by the usual cost of every act, not by your clock.
          </Typography>
          {!reveal && (
            <Button variant="outlined" onClick={() => setReveal(true)}>
              I am done: show the wiring
            </Button>
          )}
          {reveal && m.truth.length > 0 && <Truth marks={m} />}
        </Block>
      )}
    </Loaded>
  );
}

function Truth({ marks }: { marks: Marks }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, columns: { md: 2 } }}>
      {marks.truth.map((point) => (
        <Box
          component="li"
          key={point.point}
          sx={{ borderBottom: `1px solid ${tone("rule")}`, py: 0.5, breakInside: "avoid" }}
        >
          {point.name}: <b>{point.truth}</b>
          {point.right === false && (
            <Typography component="span" color="error" sx={{ fontWeight: 700 }}>
              {" "}
              you had {point.said}
            </Typography>
          )}
          {point.said == null && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              {" "}
              left open
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}

/** The clamp meter around one breaker's conductor. */
function Clamp({ home }: { home: HomeOverview }) {
  const [breaker, setBreaker] = useState("");
  const [reading, setReading] = useState<Reading | null>(null);
  const say = useNotice();
  const read = (id: string) => {
    setBreaker(id);
    readInstrument(home.id, "clamp_meter", { breaker: id }).then(setReading, say.problem);
  };
  return (
    <Block title="Clamp meter at the panel">
      <TextField
        select
        size="small"
        fullWidth
        label="Around the conductor of"
        value={breaker}
        onChange={(e) => read(e.target.value)}
      >
        {breakersOf(home).map((b) => (
          <MenuItem key={b.breaker} value={b.breaker}>
            {b.tag}
            {b.claim && ` “${b.claim}”`}
          </MenuItem>
        ))}
      </TextField>
      {reading && <ReadingShown reading={reading} />}
      {!reading && (
        <Alert severity="info" sx={{ mt: 1 }}>
          Read with everything that is connected running. In a real panel this is for qualified people.
        </Alert>
      )}
    </Block>
  );
}
