import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { HomeOverview, MarkedWay, WorkMarks } from "../../api/client";
import { useWorkMarks } from "../../api/queries";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { Mark, MarkList } from "./Mark";
import { minutes } from "./minutes";

const weighed = (way: MarkedWay) => `it weighs ${Math.round(way.cost / 100)}, ${minutes(way.minutes)}`;

/** The wish of this made-up panel, and how good the way to it and the steps are. */
export function WorkMarksOf({ home }: { home: HomeOverview }) {
  const [reveal, setReveal] = useState(false);
  const marks = useWorkMarks(home.id, reveal);
  return (
    <Loaded query={marks} what="marks">
      {(m: WorkMarks) => (
        <Block title={home.name}>
          <Typography sx={{ mb: 1.5 }} data-testid="practice-wish">
            The wish: <b>{m.wish}</b>. Choose a way, make its job sheet, and answer it by what the instruments on the
            screen show. Where something is wrong, stop.
          </Typography>
          <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap", mb: 1.5 }}>
            <Button
              variant={m.job == null ? "contained" : "outlined"}
              component={Link}
              to={`/h/${home.id}/work?${new URLSearchParams({ wish: m.wish, panel: m.panel }).toString()}`}
            >
              Find ways
            </Button>
            {m.job != null && (
              <Button variant="contained" component={Link} to={`/h/${home.id}/work/job/${m.job}`}>
                To its job sheet
              </Button>
            )}
          </Stack>
          {m.job != null && (
            <MarkList>
              <Mark name="The way">
                {m.taken != null
                  ? `${m.taken.name}: ${weighed(m.taken)}`
                  : "A way of your own, which is not among those that were found"}
                {m.best != null && `. The best: ${m.best.name.toLowerCase()}, ${weighed(m.best)}`}.
              </Mark>
              <Mark name="Steps">
                {m.answered} of {m.steps} answered
                {m.stands === "stopped" && "; it is stopped"}
                {m.stands === "done" && "; it is done"}
              </Mark>
              <Mark name="Safety">
                {m.safety.length === 0 ? "Every reading is as the instruments show it." : m.safety.join(" ")}
                {m.stopped_rightly === true && " Something was wrong, and the job stopped there."}
              </Mark>
              {m.wrong != null && <Mark name="The panel">{m.wrong}</Mark>}
            </MarkList>
          )}
          {m.job != null && !reveal && (
            <>
              <Typography variant="body2" color="text.secondary" sx={{ my: 1.5 }}>
                Fewer points are better: minutes, risks and money together. Minutes are counted by the usual figures,
                not by your clock.
              </Typography>
              <Button variant="outlined" onClick={() => setReveal(true)}>
                I am done: show what was wrong
              </Button>
            </>
          )}
        </Block>
      )}
    </Loaded>
  );
}
