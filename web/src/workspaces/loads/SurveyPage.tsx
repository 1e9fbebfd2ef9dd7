import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { LoadsView, SurveyDecision, SurveyTogether, SurveyView, SurveyWish } from "../../api/client";
import { useLoads, useSurvey, useSurveyTogether } from "../../api/queries";
import { useRecord } from "../../api/record";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { SpanTrack } from "../../drawing/SpanTrack";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Loaded } from "../../parts/Loaded";
import { amps } from "../../parts/words";
import { numberOrNull } from "../../parts/yesNo";
import { Supply } from "./Supply";
import { SurveyReading } from "./SurveyReading";
import { SurveySideCard } from "./SurveySideCard";

const WISHES = [
  ["every", "how every circuit stands"],
  ["combine_two", "two circuits that may be joined"],
  ["feeder", "whether a feeder is overloaded"],
  ["add", "whether something may be added"],
] as const;
const HANDS = [
  ["on", "with the cover on"],
  ["clamp", "by clamp, the cover off"],
] as const;
type Wish = (typeof WISHES)[number][0];

/** The survey: the next reading that can still change the decision, and when to stop. */
export function SurveyPage() {
  const home = useThisHome();
  const loads = useLoads(home.id);
  return (
    <>
      <Button component={Link} to={`/h/${home.id}/loads`} color="inherit" sx={{ mb: 1 }}>
        All circuits
      </Button>
      <Loaded query={loads} what="loads">
        {(view: LoadsView) => <Asked home={home.id} loads={view} />}
      </Loaded>
    </>
  );
}

function Asked({ home, loads }: { home: string; loads: LoadsView }) {
  const [asked, setAsked] = useSearchParams();
  const wish = (WISHES.find(([one]) => one === asked.get("for")) ?? WISHES[0])[0];
  const breaker = asked.get("breaker") ?? "";
  const added = asked.get("amps") ?? "";
  const clamp = asked.get("clamp") === "yes";
  const [without, setWithout] = useState<readonly string[]>([]);
  const change = (changes: Record<string, string>) => {
    const next = new URLSearchParams(asked);
    for (const [name, value] of Object.entries(changes)) {
      if (value === "") next.delete(name);
      else next.set(name, value);
    }
    setAsked(next, { replace: true });
  };
  const together = useSurveyTogether(home).data;
  const withTwo = together?.panel != null;
  const survey = useSurvey(home, { wish, breaker, amps: numberOrNull(added), clamp, without });
  const ofWish = loads.circuits.filter((circuit) => (wish === "feeder") === (circuit.feeds != null));
  const waits = (wish === "feeder" || wish === "add") && (breaker === "" || (wish === "add" && added === ""));
  return (
    <>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ mb: 2, flexWrap: "wrap", alignItems: "center" }}>
        <Box sx={{ minWidth: 270, display: "grid" }}>
          <Choice
            label="To find out"
            value={wish}
            options={WISHES}
            onChange={(next: Wish) => change({ for: next, breaker: "" })}
          />
        </Box>
        {(wish === "feeder" || wish === "add") && (
          <Box sx={{ minWidth: 220, display: "grid" }}>
            <Choice
              label={wish === "feeder" ? "The feeder" : "The circuit"}
              value={breaker}
              options={[
                ["", "choose"] as const,
                ...ofWish.map((one) => [one.breaker, `${one.number}: ${one.feeds ?? one.about}`] as const),
              ]}
              onChange={(next) => change({ breaker: next })}
            />
          </Box>
        )}
        {wish === "add" && (
          <TextField
            label="To be added, A"
            value={added}
            onChange={(event) => change({ amps: event.target.value.replace(/[^0-9.]/g, "") })}
            autoComplete="off"
            slotProps={{ htmlInput: { inputMode: "decimal" } }}
            sx={{ width: 150 }}
          />
        )}
        <Box sx={{ minWidth: 250, display: "grid" }}>
          <Choice
            label="How"
            value={clamp ? "clamp" : "on"}
            options={HANDS}
            onChange={(next) => change({ clamp: next === "clamp" ? "yes" : "" })}
          />
        </Box>
      </Stack>
      {loads.supply != null && !loads.supply.stop && <Supply home={home} supply={loads.supply} />}
      {clamp && (
        <Alert severity="error" variant="outlined" sx={{ mb: 2, maxWidth: 760 }}>
          With the cover off this is live work with arc-flash danger, for qualified people only. The line-side lugs stay
          live with the main off. All of it can be done with the cover on; it takes a little longer.
        </Alert>
      )}
      {!waits && <Together home={home} together={together} wish={wishOf(wish, breaker, added)} clamp={clamp} />}
      {waits ? (
        <Typography>Choose the {wish === "feeder" ? "feeder" : "circuit, and what is to be added"}.</Typography>
      ) : (
        <Loaded query={survey} what="survey">
          {(view: SurveyView) => (
            <Round
              home={home}
              view={withTwo ? { ...view, step: null } : view}
              onLeaveOut={(id) => setWithout([...without, id])}
            />
          )}
        </Loaded>
      )}
      {without.length > 0 && (
        <Button color="inherit" onClick={() => setWithout([])} sx={{ mt: 1 }}>
          Ask again for what was left out ({without.length})
        </Button>
      )}
    </>
  );
}

function wishOf(wish: Wish, breaker: string, amps: string): SurveyWish {
  switch (wish) {
    case "every":
    case "combine_two":
      return { wish };
    case "feeder":
      return { wish, breaker };
    case "add":
      return { wish, breaker, amps: Number(amps) };
  }
}

interface TogetherProps {
  home: string;
  together: SurveyTogether | undefined;
  wish: SurveyWish;
  clamp: boolean;
}

/** With somebody else who is in: one reads, the other switches. */
function Together({ home, together, wish, clamp }: TogetherProps) {
  const record = useRecord(home);
  if (together?.panel == null || together.walk == null) {
    return (
      <Button
        variant="outlined"
        color="inherit"
        sx={{ mb: 2 }}
        onClick={() => void record([{ kind: "survey_set", wish, clamp }])}
      >
        With somebody else who is in
      </Button>
    );
  }
  const held = together.panel.step?.with === "utility_meter" ? "At the utility’s meter" : "At the panel";
  return (
    <Box sx={{ mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        With two: {together.panel.title}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        }}
      >
        <SurveySideCard home={home} side={together.panel} title={held} />
        <SurveySideCard home={home} side={together.walk} title="At the loads" />
      </Box>
      <Button color="inherit" sx={{ mt: 1 }} onClick={() => void record([{ kind: "survey_set" }])}>
        End it for everybody
      </Button>
    </Box>
  );
}

interface RoundProps {
  home: string;
  view: SurveyView;
  onLeaveOut: (id: string) => void;
}

function Round({ home, view, onLeaveOut }: RoundProps) {
  const [reads, setReads] = useState(false);
  const { step } = view;
  const alone = step == null && view.questions.length === 0;
  return (
    <>
      <Typography variant="h1" data-testid="survey-title">
        {view.title}
      </Typography>
      {view.answer != null && (
        <Typography sx={{ mt: 1, maxWidth: 720 }} data-testid="survey-answer">
          {view.answer}
        </Typography>
      )}
      <Box
        sx={{
          display: "grid",
          gap: 3,
          mt: 2,
          gridTemplateColumns: {
            xs: "minmax(0, 1fr)",
            lg: alone ? "minmax(0, 760px)" : "minmax(0, 1fr) minmax(0, 1fr)",
          },
        }}
      >
        <Stack spacing={2} sx={{ display: alone ? "none" : "flex" }}>
          {step != null && (
            <Block title={`Next reading, about ${step.minutes} min`} loud>
              <Typography sx={{ fontSize: "1.2rem", fontWeight: 700 }} data-testid="survey-step">
                {step.words}
              </Typography>
              {step.load == null && (
                <Box component="ul" aria-label="To be switched on" sx={{ my: 1, pl: 2.5 }}>
                  {step.names.map((name) => (
                    <li key={name}>{name}</li>
                  ))}
                </Box>
              )}
              <Typography sx={{ mt: 1 }}>{step.why}</Typography>
              {step.cautions.map((caution) => (
                <Alert key={caution} severity="warning" variant="outlined" sx={{ mt: 1 }}>
                  {caution}
                </Alert>
              ))}
              <Stack direction="row" useFlexGap spacing={1.5} sx={{ mt: 2, flexWrap: "wrap" }}>
                <Button variant="contained" size="large" onClick={() => setReads(true)}>
                  Write the reading down
                </Button>
                <Button color="inherit" onClick={() => onLeaveOut(step.load ?? step.breaker)}>
                  Cannot be read
                </Button>
              </Stack>
              {view.minutes_left > step.minutes && (
                <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
                  About {Math.round(view.minutes_left)} minutes are left in all.
                </Typography>
              )}
            </Block>
          )}
          {view.questions.length > 0 && (
            <Block title="Does not agree">
              <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                {view.questions.map((question) => (
                  <li key={question}>{question}</li>
                ))}
              </Box>
            </Block>
          )}
        </Stack>
        <Decisions decisions={view.decisions} />
      </Box>
      {reads && step != null && <SurveyReading home={home} step={step} onClose={() => setReads(false)} />}
    </>
  );
}

const STANDS: Record<SurveyDecision["stands"], string> = {
  nothing: "nothing entered",
  room: "below 80 %",
  near: "80 % or more",
  over: "too much",
  too_close: "not settled",
};

function Decisions({ decisions }: { decisions: readonly SurveyDecision[] }) {
  if (decisions.length === 0) return null;
  return (
    <Box>
      <Box aria-hidden sx={{ position: "relative", height: 20, fontSize: "0.85rem", ml: "72px", mr: "110px" }}>
        <Box sx={{ position: "absolute", left: "40%", transform: "translateX(-100%)", pr: 0.5 }}>80 %</Box>
        <Box sx={{ position: "absolute", left: "50%", pl: 0.5 }}>limit</Box>
      </Box>
      <Box component="ul" aria-label="Decisions" data-testid="decisions" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {decisions.map((one) => (
          <Box
            component="li"
            key={one.number}
            data-number={one.number}
            data-settled={one.settled}
            sx={{
              display: "grid",
              gridTemplateColumns: "64px minmax(0, 1fr) 102px",
              columnGap: 1,
              alignItems: "center",
              py: 0.7,
              borderTop: `1px solid ${tone("rule")}`,
            }}
          >
            <Box sx={{ fontWeight: 700 }}>{one.number}</Box>
            <Box>
              <SpanTrack between={one.between} limit={one.limit} settled={one.settled} />
              <Box
                sx={{
                  fontSize: "0.85rem",
                  color: "text.secondary",
                  overflow: "hidden",
                  textOverflow: "ellipsis",
                  whiteSpace: "nowrap",
                }}
              >
                {one.about}
              </Box>
            </Box>
            <Box sx={{ textAlign: "right", fontSize: "0.9rem" }}>
              <Box sx={{ fontWeight: 700 }}>
                {amps(one.between[0] ?? 0)} to {amps(one.between[1] ?? 0)} A
              </Box>
              {STANDS[one.stands]}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
