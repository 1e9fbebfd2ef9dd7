import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useCallback, useState } from "react";
import { Link, useParams } from "react-router";
import type { Fact, NamedCause, TroubleAnswer, TroubleFound, TroubleView } from "../../api/client";
import { useTrouble } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Fold } from "../../parts/Fold";
import { Loaded } from "../../parts/Loaded";
import { when } from "../../parts/when";
import { NextLookShown } from "./NextLookShown";
import { FaultOnScreen } from "../practice/FaultLesson";
import { PowerRoad } from "./PowerRoad";
import { StopShown } from "./StopShown";
import { WhyShown } from "./WhyShown";

/** One trouble: the road of its power, the next look, what it is, or the stop. */
export function TroublePage() {
  const home = useThisHome();
  const { trouble = "" } = useParams();
  const asked = useTrouble(home.id, trouble);
  return (
    <Loaded query={asked} what="trouble">
      {(view: TroubleView) => (
        <Shown key={view.trouble} home={home.id} view={view} madeUp={home.practice?.lesson === "fault"} />
      )}
    </Loaded>
  );
}

function Shown({ home, view, madeUp }: { home: string; view: TroubleView; madeUp: boolean }) {
  const act = useAct(home);
  const [stopped, setStopped] = useState(false);
  const { trouble, next } = view;
  const onSaw = useCallback(
    (saw: TroubleAnswer["saw"]) => {
      if (next) void act([{ kind: "trouble_looked", trouble, at: next.look, saw }]);
    },
    [act, trouble, next],
  );
  const end = (found: TroubleFound | null, also: Fact[] = []) =>
    void act([{ kind: "trouble_ended", trouble, found }, ...also], "Written down.");
  const { stop } = view;
  const takeBack = () => {
    if (stop?.line != null) void act([{ kind: "line_struck", line: stop.line }], "Taken back.");
  };
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      {stop && !stopped && (
        <StopShown
          stop={stop}
          about={view.title}
          onDone={() => setStopped(true)}
          onOther={stop.line == null ? undefined : takeBack}
        />
      )}
      <Box>
        <Typography variant="h1">{view.title}</Typography>
        <Typography color="text.secondary">
          {when(view.at)}. {view.told.join(". ")}
        </Typography>
      </Box>
      {view.over != null && (
        <Alert severity="info" variant="outlined" data-testid="over">
          {view.over}
        </Alert>
      )}
      {madeUp && (view.over != null || stop) && (
        <Button component={Link} to={`/h/${home}/practice`} variant="contained" sx={{ justifySelf: "start" }}>
          Your marks
        </Button>
      )}
      {view.to_be_mended && (
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => void act([{ kind: "trouble_mended", trouble }], "Written down.")}
          sx={{ justifySelf: "start", minHeight: 48 }}
        >
          It is mended
        </Button>
      )}
      {stop && stopped && (
        <Block title={stop.title}>
          <Typography sx={{ mb: 1.5 }}>Nothing is switched on again until it is mended.</Typography>
          <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
            <Button variant="outlined" color="inherit" onClick={() => setStopped(false)}>
              Show the stop again
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => end(null)}>
              It is mended
            </Button>
          </Stack>
        </Block>
      )}
      <Box
        sx={{
          display: "grid",
          gap: 3,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 5fr) minmax(0, 6fr)" },
        }}
      >
        {view.road.length > 0 && (
          <Box sx={{ order: { xs: 2, md: 0 } }}>
            <Typography color="text.secondary" sx={{ mb: 1 }}>
              The way its power comes, and where it may stop:
            </Typography>
            <PowerRoad road={view.road} />
          </Box>
        )}
        <Box sx={{ display: "grid", gap: 2 }}>
          {madeUp && (next ?? view.named) && !stop && <FaultOnScreen home={home} />}
          {next && !stop && <NextLookShown key={JSON.stringify(next.look)} next={next} onSaw={onSaw} />}
          {view.named && !stop && <Named home={home} named={view.named} onEnd={end} />}
          {view.over == null && !stop && (
            <Button color="inherit" onClick={() => end(null)} sx={{ justifySelf: "start", minHeight: 48 }}>
              It works again
            </Button>
          )}
          <Seen home={home} view={view} />
          {view.causes.length > 0 && (
            <Fold label="how each chance came about" onPage>
              <WhyShown home={home} trouble={trouble} />
            </Fold>
          )}
          {view.causes.length > 0 && (
            <Fold label="every cause" onPage>
              <Box component="ul" data-testid="causes" sx={{ listStyle: "none", m: 0, p: 0 }}>
                {view.causes.map((cause) => (
                  <li key={cause.words}>
                    <Typography>
                      {cause.percent === 0 ? "< 1" : cause.percent} %: {cause.words}
                    </Typography>
                  </li>
                ))}
              </Box>
              <Typography variant="body2" color="text.secondary">
                By how often each happens, where each would be, and what was seen. The counts behind it are judgement;
                nothing here is proven.
              </Typography>
            </Fold>
          )}
        </Box>
      </Box>
    </Box>
  );
}

interface NamedProps {
  home: string;
  named: NamedCause;
  onEnd: (found: TroubleFound, also: Fact[]) => void;
}

function Named({ home, named, onEnd }: NamedProps) {
  const { cure } = named;
  return (
    <Block loud>
      <Typography variant="h3" component="p" color="text.secondary">
        {named.how}: {named.percent} %
      </Typography>
      <Typography variant="h2" data-testid="named" sx={{ mb: 1 }}>
        {named.words}
      </Typography>
      {named.or != null && (
        <Typography>
          Or: {named.or.words} ({named.or.percent} %).
        </Typography>
      )}
      {named.settle !== "" && <Typography sx={{ mb: 1 }}>{named.settle}</Typography>}
      {named.boxes.length > 0 && (
        <Typography sx={{ mb: 1 }}>
          Look in these boxes, in this order: <b>{named.boxes.join("; ")}</b>.
        </Typography>
      )}
      {cure.mind.map((line) => (
        <Alert key={line} severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {line}
        </Alert>
      ))}
      <Box component="ol" sx={{ m: 0, pl: 3 }}>
        {cure.steps.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </Box>
      {cure.electrician && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          This is an electrician’s. Local codes and licensed practice come first.
        </Alert>
      )}
      {cure.call.map((call) =>
        call.number === "" ? (
          <Typography key={call.who} sx={{ mt: 1 }}>
            Call: {call.who.toLowerCase()}. Keep the number in Trips; then it is dialed from here.
          </Typography>
        ) : (
          <Button
            key={call.who}
            component="a"
            href={`tel:${call.number}`}
            variant="outlined"
            color="inherit"
            sx={{ mt: 1, mr: 1, minHeight: 48 }}
          >
            Call {call.who.toLowerCase()}: {call.number}
          </Button>
        ),
      )}
      {named.found.length > 1 && <Typography sx={{ mt: 2 }}>Once the boxes were opened, what was it?</Typography>}
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 2 }}>
        {named.found.map(({ label, found, also }, n) => (
          <Button
            key={label}
            variant={n === 0 ? "contained" : "outlined"}
            color={n === 0 ? "primary" : "inherit"}
            onClick={() => onEnd(found, also)}
            sx={{ minHeight: 48 }}
          >
            {label}
          </Button>
        ))}
        {cure.acts.map((one) => (
          <Button
            key={one.label}
            component={Link}
            to={`/h/${home}/${one.screen}${one.wish === "" ? "" : `?${String(new URLSearchParams({ wish: one.wish, panel: one.panel }))}`}`}
            variant="outlined"
            color="inherit"
            sx={{ minHeight: 48 }}
          >
            {one.label}
          </Button>
        ))}
      </Stack>
      {named.found
        .filter(({ learnt }) => learnt !== "")
        .map(({ label, learnt }) => (
          <Typography key={label} variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            With “{label}” this is written down, too: {learnt}
          </Typography>
        ))}
    </Block>
  );
}

/** What was seen, the last first; each can be taken back. */
function Seen({ home, view }: { home: string; view: TroubleView }) {
  const act = useAct(home);
  if (view.seen.length === 0) return null;
  return (
    <Block title="Seen so far">
      <Box component="ul" data-testid="seen" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {view.seen.map((one) => (
          <Box component="li" key={one.line} sx={{ display: "flex", gap: 1, alignItems: "center", minHeight: 44 }}>
            <Typography sx={{ flex: 1, minWidth: 0 }}>
              {one.words}{" "}
              <Typography component="span" variant="body2" color="text.secondary">
                {one.by}
              </Typography>
            </Typography>
            {view.over == null && (
              <Button
                size="small"
                color="inherit"
                aria-label={`Take back: ${one.words}`}
                onClick={() => void act([{ kind: "line_struck", line: one.line }], "Taken back.")}
                sx={{ minHeight: 44 }}
              >
                Take back
              </Button>
            )}
          </Box>
        ))}
      </Box>
    </Block>
  );
}
