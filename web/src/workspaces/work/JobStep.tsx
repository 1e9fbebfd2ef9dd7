import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, type ReactNode } from "react";
import type { Fact, JobReading, JobSheet, JobSheetStep } from "../../api/client";
import { tone } from "../../app/theme";
import { ProbePicture } from "../../drawing/ProbePicture";
import { ReadingPad } from "./ReadingPad";

interface Props {
  sheet: JobSheet;
  step: JobSheetStep;
  /** In a made-up panel: what is on the screen in place of a real one. */
  instrument: ReactNode;
  onFacts: (facts: Fact[]) => void;
}

/** The step that is next, with what passes it: done, a named choice, or readings. */
export function JobStep({ sheet, step, instrument, onFacts }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  const { ask } = step;
  const next = ask.ask === "readings" ? ask.readings.find((one) => one.value == null) : undefined;
  const reading = next?.reading;
  // The step that is next comes under the band, whatever was looked at before.
  useEffect(() => {
    heading.current?.focus({ preventScroll: true });
    if (window.innerWidth < 900) heading.current?.scrollIntoView({ block: "start" });
  }, [step.step, reading]);
  const isFirst = ask.ask !== "readings" || ask.readings.every((one) => one.value == null);
  const ends = next && step.step === "dead" ? next.reading.split("-") : [];
  return (
    <Box data-job-step={step.step} data-ask={ask.ask}>
      <Typography variant="body2" color="text.secondary" sx={{ fontWeight: 700 }}>
        {step.stage} · {step.side === "panel" ? "at the panel" : "at the outlet"}
        {step.stop != null && ` · stop ${step.stop}`}
      </Typography>
      <Typography
        variant="h1"
        component="h2"
        ref={heading}
        tabIndex={-1}
        sx={{ my: 0.5, outline: "none", scrollMarginTop: { xs: "190px", md: "80px" } }}
      >
        {step.title}
        {next &&
          ask.ask === "readings" &&
          ask.readings.length > 1 &&
          ` ${next.name.charAt(0).toUpperCase()}${next.name.slice(1)}.`}
      </Typography>
      {isFirst && step.words !== "" && <Typography sx={{ mb: 1 }}>{step.words}</Typography>}
      {next && <Typography sx={{ mb: 1 }}>{next.how}</Typography>}
      {step.caution !== "" && (
        <Alert severity="error" variant="outlined" sx={{ mb: 1.5 }} data-testid="job-caution">
          {step.caution}
        </Alert>
      )}
      {instrument}
      {ask.ask === "tick" && (
        <Button
          variant="contained"
          size="large"
          data-main
          fullWidth
          sx={{ minHeight: 64, maxWidth: 420 }}
          onClick={() => onFacts(ask.facts)}
        >
          Done
        </Button>
      )}
      {ask.ask === "choice" && (
        <Stack spacing={1.5} sx={{ maxWidth: 420 }}>
          {ask.choices.map((choice) => (
            <Button
              key={choice.choice}
              variant="outlined"
              color={choice.ends ? "error" : "inherit"}
              size="large"
              data-choice={choice.choice}
              sx={{
                minHeight: 64,
                justifyContent: "flex-start",
                textAlign: "left",
                ...(choice.ends && { color: tone("danger") }),
              }}
              onClick={() => onFacts(choice.facts)}
            >
              {choice.words}
              {choice.ends && ": stop"}
            </Button>
          ))}
        </Stack>
      )}
      {ask.ask === "readings" && next && (
        <Box
          sx={{
            display: "grid",
            gap: 2,
            alignItems: "start",
            gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "minmax(0, 1fr) minmax(0, 1fr)" },
          }}
        >
          {/* On a phone the keys come first: they are what is used. */}
          <Box sx={{ order: { xs: 2, sm: 0 } }}>
            <Readings readings={ask.readings} now={next.reading} />
            {ends.length === 2 && ends[0] !== undefined && ends[1] !== undefined && sheet.panel != null && (
              <ProbePicture ends={[ends[0], ends[1]]} />
            )}
          </Box>
          <Stack spacing={1.5}>
            <ReadingPad
              key={`${step.step} ${next.reading}`}
              reading={next}
              left={ask.readings.filter((one) => one.value == null).length}
              onRecord={(value) =>
                onFacts([
                  {
                    kind: "job_answered",
                    job: sheet.job,
                    step: step.step,
                    answer: { said: "read", reading: next.reading, value },
                  },
                ])
              }
            />
            {ask.unsettled.length > 0 && (
              <Button variant="outlined" color="error" sx={{ maxWidth: 420 }} onClick={() => onFacts(ask.unsettled)}>
                It will not settle: stop
              </Button>
            )}
            {ask.instead != null && (
              <Button
                variant="outlined"
                color="inherit"
                sx={{ maxWidth: 420 }}
                onClick={() => ask.instead != null && onFacts(ask.instead.facts)}
              >
                {ask.instead.words.charAt(0).toUpperCase() + ask.instead.words.slice(1)}
              </Button>
            )}
          </Stack>
        </Box>
      )}
    </Box>
  );
}

function Readings({ readings, now }: { readings: readonly JobReading[]; now: string }) {
  return (
    <Box component="ol" aria-label="Readings" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {readings.map((one) => {
        const current = one.reading === now;
        return (
          <Box
            component="li"
            key={one.reading}
            aria-current={current ? "step" : undefined}
            sx={{
              display: "flex",
              justifyContent: "space-between",
              gap: 1,
              px: 1,
              py: 0.4,
              ...(current && { bgcolor: tone("dark"), color: tone("onDark"), fontWeight: 700 }),
            }}
          >
            <span>{one.name}</span>
            <span>{one.value != null ? `${one.value} ${one.unit}` : current ? "?" : ""}</span>
          </Box>
        );
      })}
    </Box>
  );
}
