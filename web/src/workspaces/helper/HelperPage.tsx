import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ProblemError, isGone, type HelperView, type Me, type SurveySide } from "../../api/client";
import { useHelper, useJob, useJobs, useStream, useSurveyTogether, useTrips, useTrouble } from "../../api/queries";
import { setMyName } from "../../api/record";
import { ClockBar } from "../../app/ClockBar";
import { ConnectionBar } from "../../app/ConnectionBar";
import { OffNowChip } from "../../app/OffNowChip";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { useClocks } from "../../app/useClocks";
import { useSignOut } from "../../app/useSignOut";
import { Alarm } from "../../parts/Alarm";
import { CautionsNow, TraceCautions } from "../../parts/Cautions";
import { Loaded } from "../../parts/Loaded";
import { StepCardShown } from "../../parts/StepCardShown";
import { stepId, useNewStep } from "../../parts/useNewStep";
import { Kit } from "../practice/Instruments";
import { SurveySideCard } from "../loads/SurveySideCard";
import { CurrentPoint } from "../trace/CurrentPoint";
import { LastLook } from "../trace/LastLook";
import { metered, useLooks } from "../trace/useLooks";
import { NextLookShown } from "../trips/NextLookShown";
import { StopShown } from "../trips/StopShown";
import { JobShown } from "../work/JobShown";

/** A helper's phone: their own next step, and nothing else. */
export function HelperPage({ home, me }: { home: string; me: Me }) {
  const helper = useHelper(home);
  const together = useSurveyTogether(home).data;
  const side = me.side === "panel" ? together?.panel : together?.walk;
  const client = useQueryClient();
  const live = useStream(home);
  useEffect(() => {
    if (me.name != null) setMyName(me.name);
  }, [me.name]);
  const sentAway = helper.error instanceof ProblemError && helper.error.problem.status === 401;
  useEffect(() => {
    // The stream is cut when the owner sends somebody away, and when the network is gone: ask which it is.
    if (sentAway || !live) void client.invalidateQueries({ queryKey: sentAway ? ["me"] : ["home", home, "helper"] });
  }, [sentAway, live, client, home]);
  const leave = useSignOut();
  return (
    <Box sx={{ minHeight: "100dvh" }}>
      <title>Your step · Wayfinder</title>
      <Box
        component="header"
        sx={{ position: "sticky", top: 0, zIndex: 20, bgcolor: tone("bar"), color: "#fff", minHeight: 56, px: 1.5 }}
      >
        <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, minHeight: 56 }}>
          <Typography component="span" noWrap sx={{ flex: 1, fontWeight: 500 }}>
            {helper.data?.home ?? "Wayfinder"}
          </Typography>
          {helper.data && !isGone(helper.error) && <OffNowChip off={helper.data.off_now} />}
          <Button color="inherit" onClick={leave}>
            Leave
          </Button>
        </Box>
      </Box>
      <ConnectionBar live={live || helper.data === undefined} />
      <Box component="main" sx={{ maxWidth: 560, mx: "auto", p: 2, pb: 12 }}>
        <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
          {me.name}, {me.side === "panel" ? "at the panel" : "walking"}
        </Typography>
        <OpenJob home={home} />
        <OpenTrouble home={home} />
        <Loaded query={helper} what="next step">
          {(view: HelperView) => <Step home={home} view={view} reading={side ?? null} />}
        </Loaded>
        {/* A stop says to turn the main off; these say to leave it alone. */}
        {helper.data?.card.weight !== "alarm" && (
          <Box sx={{ mt: 2 }}>
            <TraceCautions />
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** The job that is open, for whoever stands at the outlet or at the panel. */
function OpenJob({ home }: { home: string }) {
  const jobs = useJobs(home).data?.jobs ?? [];
  const open = jobs.find((job) => job.stands === "open" || job.stands === "stopped");
  return open === undefined ? null : <JobOfHelper home={home} job={open.job} title={open.title} />;
}

function JobOfHelper({ home, job, title }: { home: string; job: string; title: string }) {
  const sheet = useJob(home, job).data;
  const act = useAct(home);
  if (sheet === undefined) return null;
  return (
    <Box sx={{ mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <JobShown sheet={sheet} helper onFacts={(facts) => void act(facts)} />
    </Box>
  );
}

/** What is wrong and not found out: the same next look as on every phone. */
function OpenTrouble({ home }: { home: string }) {
  const open = useTrips(home).data?.troubles.find((one) => !one.over);
  return open === undefined ? null : <TroubleOfHelper key={open.trouble} home={home} trouble={open.trouble} />;
}

function TroubleOfHelper({ home, trouble }: { home: string; trouble: string }) {
  const view = useTrouble(home, trouble).data;
  const act = useAct(home);
  const [seen, setSeen] = useState("");
  if (view === undefined) return null;
  const { next, stop } = view;
  if (stop != null && seen !== stop.title)
    return <StopShown stop={stop} about={view.title} onDone={() => setSeen(stop.title)} />;
  return (
    <Box sx={{ mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {view.title}
      </Typography>
      {stop != null && <Alarm>{stop.title}. Nothing is switched on again until it is mended.</Alarm>}
      {next != null && stop == null && (
        <NextLookShown
          key={JSON.stringify(next.look)}
          next={next}
          onSaw={(saw) => void act([{ kind: "trouble_looked", trouble, at: next.look, saw }])}
        />
      )}
      {view.named != null && stop == null && <Typography>{view.named.words}. The owner goes on from here.</Typography>}
    </Box>
  );
}

interface StepProps {
  home: string;
  view: HelperView;
  /** Their part of a survey by two, where there is one. */
  reading: SurveySide | null;
}

function Step({ home, view, reading }: StepProps) {
  const { card } = view;
  // A stop goes before every reading.
  const surveys = reading !== null && card.weight !== "alarm";
  const rooms = surveys ? [] : view.rooms;
  const looks = useLooks(home, {
    seq: view.seq,
    lastTurn: view.last_turn,
    rooms,
    listen: card.looking?.listen === true,
  });
  const { over } = useClocks(view);
  useNewStep([card]);
  const left = looks.shown.filter((s) => s.seen === null && !s.skipped).length;
  const first = over.length > 0 && card.side === "panel" && card.weight !== "alarm";
  return (
    <Stack
      spacing={2}
      data-testid="helper-step"
      data-do={card.looking != null ? "look" : card.weight}
      data-seq={view.seq}
    >
      <ClockBar home={home} clocks={view.clocks} onFacts={looks.act} />
      <CautionsNow cautions={view.cautions} />
      {surveys && <SurveySideCard home={home} side={reading} title={reading.title} />}
      {!first && !surveys && (
        <StepCardShown key={stepId(card)} card={card} home={home} onFacts={looks.act}>
          {card.looking != null && (
            <>
              {looks.current && left > 0 ? (
                <CurrentPoint
                  key={looks.current.point.point}
                  shown={looks.current}
                  looks={looks}
                  listening={card.looking.listen}
                />
              ) : (
                <Typography>Everything is looked at. Wait for the next step.</Typography>
              )}
              <Typography variant="body2" color="text.secondary">
                {left} to look at.
              </Typography>
            </>
          )}
        </StepCardShown>
      )}
      {card.looking != null && !surveys && view.practice && looks.current && (
        <Kit
          key={`${looks.current.point.point} ${view.seq}`}
          home={home}
          point={looks.current.point.point}
          title={`${looks.current.room}, ${looks.current.point.name}`}
          onVolts={metered(looks)}
        />
      )}
      {!(card.looking && looks.current) && <LastLook looks={looks} />}
    </Stack>
  );
}
