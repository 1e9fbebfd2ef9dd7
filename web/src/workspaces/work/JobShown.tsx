import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import type { Fact, JobSheet } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { Alarm } from "../../parts/Alarm";
import { JobStep } from "./JobStep";

interface Props {
  sheet: JobSheet;
  /** A helper sees the step and answers it; how the job ends is the owner's. */
  helper?: boolean;
  /** In a made-up panel: what is on the screen in place of a real one. */
  instrument?: ReactNode;
  onFacts: (facts: Fact[]) => void;
}

/** A job where it stands: what stays live, the step that is next, or why it stopped. The same on every phone. */
export function JobShown({ sheet, helper = false, instrument = null, onFacts }: Props) {
  const step = sheet.next == null ? undefined : sheet.steps[sheet.next];
  return (
    <Box data-testid="job" data-stands={sheet.stands}>
      {sheet.live !== "" && (sheet.stands === "open" || sheet.stands === "stopped") && (
        <Box
          role="note"
          data-testid="live-band"
          sx={{
            bgcolor: "#a3151c",
            color: "#fff",
            px: 2,
            py: 1,
            mx: { xs: -2, md: 0 },
            mb: 2,
            position: "sticky",
            top: 56,
            zIndex: 5,
          }}
        >
          <b>Live all the time:</b> {sheet.live}
        </Box>
      )}
      {sheet.off_now != null && (
        <Typography variant="body2" sx={{ fontWeight: 700, mb: 1 }}>
          Off now: {sheet.off_now}
        </Typography>
      )}
      {sheet.stands === "open" && step && (
        <>
          <JobStep key={step.step} sheet={sheet} step={step} instrument={instrument} onFacts={onFacts} />
          <SomethingWrong sheet={sheet} onFacts={onFacts} />
        </>
      )}
      {sheet.stands === "stopped" && <Stopped sheet={sheet} helper={helper} onFacts={onFacts} />}
    </Box>
  );
}

function SomethingWrong({ sheet, onFacts }: Pick<Props, "sheet" | "onFacts">) {
  const [asking, setAsking] = useState(false);
  if (!asking) {
    return (
      <Button variant="text" color="error" sx={{ mt: 2 }} onClick={() => setAsking(true)}>
        Something is wrong: stop
      </Button>
    );
  }
  return (
    <Box sx={{ mt: 2, maxWidth: 420 }} role="group" aria-label="What is wrong">
      <Typography variant="h3" component="p" sx={{ mb: 1 }}>
        What was found?
      </Typography>
      <Stack spacing={1}>
        {LISTS.jobFinds.map(([found, words]) => (
          <Button
            key={found}
            variant="outlined"
            color="inherit"
            sx={{ justifyContent: "flex-start", textAlign: "left" }}
            onClick={() => onFacts([{ kind: "job_stopped", job: sheet.job, found }])}
          >
            {words}
          </Button>
        ))}
        <Button color="inherit" onClick={() => setAsking(false)}>
          Back to the step
        </Button>
      </Stack>
    </Box>
  );
}

function Stopped({ sheet, helper, onFacts }: Required<Omit<Props, "instrument">>) {
  const stop = sheet.stop;
  if (stop == null) return null;
  const step = sheet.steps.find((one) => one.step === stop.step);
  return (
    <Alarm data-testid="job-stop">
      <Typography variant="h1" component="h2">
        Stop
      </Typography>
      <Typography sx={{ my: 1, fontWeight: 700 }}>{stop.title}</Typography>
      <Typography>{stop.call}</Typography>
      {sheet.left_as.length > 0 && (
        <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
          {sheet.left_as.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </Box>
      )}
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1 }}>
        {stop.again.length > 0 && (
          <Button variant="outlined" color="inherit" onClick={() => onFacts(stop.again)}>
            {step?.ask.ask === "readings" ? "Read all of it again" : "Answer it again"}
          </Button>
        )}
        {stop.report.length > 0 && (
          <Button variant="contained" onClick={() => onFacts(stop.report)}>
            The job ends here
          </Button>
        )}
        {stop.slip.length > 0 && !helper && (
          <Button variant="outlined" color="inherit" onClick={() => onFacts(stop.slip)}>
            It was a slip: go on
          </Button>
        )}
      </Stack>
    </Alarm>
  );
}
