import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { Link, useParams } from "react-router";
import type { Fact, HomeOverview, JobSheet } from "../../api/client";
import { useJob } from "../../api/queries";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { SmallPost } from "../../drawing/SmallPost";
import { AskFirst } from "../../parts/AskFirst";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";
import { dateOf } from "../../parts/when";
import { AtTheJob } from "../practice/AtTheJob";
import { changed } from "./changed";
import { JobShown } from "./JobShown";

/** A job sheet: one step at a time, and the whole of it beside. */
export function JobPage() {
  const home = useThisHome();
  const { job = "" } = useParams();
  const sheet = useJob(home.id, job);
  return (
    <>
      <Button component={Link} to={`/h/${home.id}/work`} color="inherit" className="no-print">
        All work
      </Button>
      <Loaded query={sheet} what="job sheet">
        {(view: JobSheet) => <Sheet home={home} sheet={view} />}
      </Loaded>
    </>
  );
}

function Sheet({ home, sheet }: { home: HomeOverview; sheet: JobSheet }) {
  const act = useAct(home.id);
  const record = (facts: Fact[]) => void act(facts);
  const now = home.panels.find((view) => view.panel.id === sheet.panel);
  const over = sheet.stands === "done" || sheet.stands === "left";
  const step = sheet.stands !== "open" || sheet.next == null ? undefined : sheet.steps[sheet.next];
  const read = step?.ask.ask === "readings" ? step.ask.readings.filter((one) => one.value != null).length : 0;
  const next = sheet.next == null ? sheet.steps.length : sheet.next;
  return (
    <>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "baseline", mb: 1 }}>
        <Typography variant="h1">{sheet.title}</Typography>
        <Typography variant="body2" color="text.secondary" data-testid="job-progress">
          {sheet.place}
          {sheet.place !== "" && ". "}
          {over || sheet.steps.length === 0
            ? ""
            : `Step ${Math.min(next + 1, sheet.steps.length)} of ${sheet.steps.length}. `}
          Made {dateOf(sheet.at)} by {sheet.by}.
        </Typography>
      </Box>
      <Box
        sx={{
          display: "grid",
          gap: 3,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 3fr) minmax(0, 2fr)" },
          "@media print": { display: "block" },
        }}
      >
        <Box className="no-print">
          <JobShown
            sheet={sheet}
            onFacts={record}
            instrument={
              home.practice?.lesson === "work" &&
              step !== undefined &&
              step.ask.ask !== "tick" && (
                <AtTheJob
                  key={`${step.step} ${read}`}
                  home={home.id}
                  job={sheet.job}
                  meter={step.ask.ask === "readings"}
                />
              )
            }
          />
          {sheet.refused != null && !over && (
            <Block title="No sheet can be made of it now">
              <Typography>{sheet.refused}</Typography>
            </Block>
          )}
          {sheet.stands === "ready" && sheet.ends != null && (
            <Block title="Every step is passed" loud>
              <Typography sx={{ mb: 1.5 }}>
                The record follows at once: panel, points, loads and the card. One line of the logbook, struck out to
                take it back.
              </Typography>
              <Button
                variant="contained"
                size="large"
                data-main
                onClick={() => sheet.ends != null && void act([sheet.ends], "The job is done, and the record follows.")}
              >
                Finish: the record follows
              </Button>
            </Block>
          )}
          {sheet.stands === "done" && (
            <Block title="Done">
              <Typography sx={{ mb: 1.5 }}>
                Panel and card follow from it. What hangs on another breaker now and was not seen to is asked for by
                Trace.
              </Typography>
              <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
                <Button variant="outlined" component={Link} to={`/h/${home.id}/directory`}>
                  Print the card
                </Button>
                <Button variant="outlined" component={Link} to={`/h/${home.id}/panel`}>
                  See the panel
                </Button>
                <Button variant="outlined" component={Link} to={`/h/${home.id}/trace`}>
                  Trace what is open
                </Button>
              </Stack>
            </Block>
          )}
          {sheet.stands === "left" && (
            <Typography>This job was given up. Nothing in the record changed by it.</Typography>
          )}
          {!over && sheet.left_as.length > 0 && sheet.stands !== "stopped" && (
            <Box sx={{ mt: 2 }}>
              <Block title="If you leave it like this">
                <Box component="ul" sx={{ m: 0, pl: 2.5 }} data-testid="left-as">
                  {sheet.left_as.map((one) => (
                    <Typography component="li" variant="body2" key={one}>
                      {one}
                    </Typography>
                  ))}
                </Box>
              </Block>
            </Box>
          )}
        </Box>
        {!over && sheet.steps.length > 0 && (
          <Stack spacing={2}>
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }} className="no-print">
              <Button variant="outlined" onClick={() => window.print()}>
                Print the sheet
              </Button>
              <AskFirst
                words="Give it up"
                question="Give this job up? Nothing in the record changes by it."
                onYes={() => void act([{ kind: "job_left", job: sheet.job }], "The job is given up.")}
              />
            </Stack>
            {now && sheet.after != null && <Posts now={now} after={sheet.after} />}
            <Takes sheet={sheet} />
            <AllSteps sheet={sheet} />
            <Typography variant="body2">
              <b>Stop and call an electrician:</b> {sheet.stop_and_call} Local code and licensed practice come first.
            </Typography>
          </Stack>
        )}
      </Box>
    </>
  );
}

function Posts({ now, after }: { now: NonNullable<JobSheet["after"]>; after: NonNullable<JobSheet["after"]> }) {
  const marks = changed(now, after);
  if (marks.before === "" && marks.after === "") return null;
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: "center", overflowX: "auto" }}>
      <SmallPost view={now} moved={marks.gone} label={`Now: ${marks.before || "nothing changes"}`} />
      <Box component="span" aria-hidden sx={{ fontSize: "1.4rem", fontWeight: 700 }}>
        →
      </Box>
      <SmallPost
        view={after}
        moved={marks.moved}
        fresh={marks.fresh}
        label={`After: ${marks.after || "the same numbers"}`}
      />
    </Stack>
  );
}

function Takes({ sheet }: { sheet: JobSheet }) {
  if (sheet.parts.length + sheet.tools.length === 0) return null;
  return (
    <Block title="Parts and tools">
      <Box component="ul" sx={{ m: 0, pl: 2.5 }} data-testid="parts">
        {sheet.parts.map((part) => (
          <Typography component="li" variant="body2" key={part.what}>
            {part.count > 1 ? `${part.count} × ${part.what}` : part.what}
          </Typography>
        ))}
        {sheet.tools.map((tool) => (
          <Typography component="li" variant="body2" key={tool} color="text.secondary">
            {tool}
          </Typography>
        ))}
      </Box>
      {sheet.not_known.map((one) => (
        <Typography variant="body2" key={one} sx={{ mt: 1 }}>
          <b>Not known yet.</b> {one}
        </Typography>
      ))}
    </Block>
  );
}

function AllSteps({ sheet }: { sheet: JobSheet }) {
  return (
    <Block title="All steps">
      <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }} data-testid="all-steps">
        {sheet.steps.map((step, n) => (
          <Box
            component="li"
            key={step.step}
            aria-current={n === sheet.next ? "step" : undefined}
            sx={{
              breakInside: "avoid",
              py: 0.5,
              px: 1,
              display: "grid",
              gridTemplateColumns: "28px minmax(0, 1fr)",
              ...(step.stop != null && { border: `2px solid ${tone("ink")}`, my: 0.5 }),
              ...(n === sheet.next && { bgcolor: tone("rail") }),
            }}
          >
            <Typography component="span" variant="body2" sx={{ fontWeight: 700 }}>
              {step.passed ? "✓" : step.number}
            </Typography>
            <Box>
              {step.stage !== sheet.steps[n - 1]?.stage && (
                <Typography variant="body2" color="text.secondary" sx={{ fontWeight: 700 }}>
                  {step.stage}
                </Typography>
              )}
              <Typography variant="body2">
                {step.stop != null && <b>Stop {step.stop}. </b>}
                {step.title}
              </Typography>
              {step.passed && step.said !== "done" && (
                <Typography variant="body2" color="text.secondary">
                  {step.said}
                </Typography>
              )}
              {!step.passed && step.ask.ask === "readings" && (
                <Typography variant="body2" className="print-only">
                  {step.ask.readings.map((one) => `${one.name} ______ ${one.unit}`).join("   ")}
                </Typography>
              )}
              {!step.passed && step.ask.ask === "choice" && (
                <Typography variant="body2" className="print-only">
                  {step.ask.choices.map((one) => `☐ ${one.words}${one.ends ? ": stop" : ""}`).join("   ")}
                </Typography>
              )}
            </Box>
          </Box>
        ))}
      </Box>
    </Block>
  );
}
