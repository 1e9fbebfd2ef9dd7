import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { ProblemError, api, type Handle, type HelperView, type Me } from "../../api/client";
import { useHelper, useStream } from "../../api/queries";
import { setMyName } from "../../api/record";
import { ConnectionBar } from "../../app/ConnectionBar";
import { OffNowChip } from "../../app/OffNowChip";
import { tone } from "../../app/theme";
import { useClocks } from "../../app/useClocks";
import { Tag } from "../../drawing/Tag";
import { Alarm } from "../../parts/Alarm";
import { Block } from "../../parts/Block";
import { CautionsNow, TraceCautions } from "../../parts/Cautions";
import { Loaded } from "../../parts/Loaded";
import { sentence } from "../../parts/words";
import { Kit } from "../practice/Instruments";
import { CurrentPoint } from "../trace/CurrentPoint";
import { metered, useLooks, type Looks } from "../trace/useLooks";

/** A helper's phone: their own next step, and nothing else. */
export function HelperPage({ home, me }: { home: string; me: Me }) {
  const helper = useHelper(home);
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
  const leave = () => void api.POST("/api/leave").finally(() => void client.invalidateQueries({ queryKey: ["me"] }));
  return (
    <Box sx={{ minHeight: "100dvh" }}>
      <Box
        component="header"
        sx={{ position: "sticky", top: 0, zIndex: 20, bgcolor: tone("bar"), color: "#fff", minHeight: 56, px: 1.5 }}
      >
        <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, minHeight: 56 }}>
          <Typography component="span" noWrap sx={{ flex: 1, fontWeight: 500 }}>
            {helper.data?.home ?? "Wayfinder"}
          </Typography>
          {helper.data && <OffNowChip off={helper.data.off_now} />}
          <Button color="inherit" onClick={leave}>
            Leave
          </Button>
        </Box>
      </Box>
      <ConnectionBar live={live || helper.data === undefined} />
      <Box component="main" sx={{ maxWidth: 560, mx: "auto", p: 2 }}>
        <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
          {me.name}, {me.side === "panel" ? "at the panel" : "walking"}
        </Typography>
        <Loaded query={helper} what="next step">
          {(view: HelperView) => <Step home={home} view={view} />}
        </Loaded>
        <Box sx={{ mt: 2 }}>
          <TraceCautions />
        </Box>
      </Box>
    </Box>
  );
}

function Step({ home, view }: { home: string; view: HelperView }) {
  const step = view.step;
  const rooms = step.do === "look" ? step.rooms : [];
  const looks = useLooks(home, { seq: view.seq, lastTurn: view.last_turn, rooms });
  const { due, over } = useClocks(view);
  const clocked = view.clocked.filter((handle) => due.includes(handle.breaker));
  return (
    <Stack spacing={2} data-testid="helper-step" data-do={step.do} data-seq={view.seq}>
      {over.length > 0 && (
        <Alarm>
          <b>{clocked.map((h) => h.number).join(", ")} must be ON again now.</b>{" "}
          {over.map((clock) => sentence(clock.name)).join(", ")} may not be without power any longer.
          {view.side === "panel" && (
            <Button
              variant="contained"
              sx={{ mt: 1, bgcolor: "#fff", color: "#1d2a2e", "&:hover": { bgcolor: "#eee" } }}
              onClick={() => looks.switchBreaker(due, "on")}
            >
              Done, on again
            </Button>
          )}
        </Alarm>
      )}
      <CautionsNow cautions={view.cautions} />
      {step.do === "switch" && over.length === 0 && <Switch off={step.off} on={step.on} why={step.why} looks={looks} />}
      {step.do === "look" && <Look why={step.why} looks={looks} />}
      {step.do === "look" && view.practice && looks.current && (
        <Kit
          key={`${looks.current.point.point} ${view.seq}`}
          home={home}
          point={looks.current.point.point}
          title={`${looks.current.room}, ${looks.current.point.name}`}
          onVolts={metered(looks)}
        />
      )}
      {step.do === "plug_tone" && (
        <Block loud>
          <Typography variant="h1" data-testid="instruction">
            Plug the sender in: {step.place}
          </Typography>
          <Typography>At 120 V only, never at 240 V. Leave it there until it was heard at the panel.</Typography>
        </Block>
      )}
      {step.do === "sweep" && <Sweep point={step.point} place={step.place} breakers={step.breakers} looks={looks} />}
      {step.do === "stop" && (
        <Alarm>
          <Typography variant="h1" data-testid="instruction">
            Stop
          </Typography>
          <Typography>{step.words}</Typography>
        </Alarm>
      )}
      {(step.do === "wait" || step.do === "finished") && (
        <Block>
          <Typography variant="h1" data-testid="instruction">
            {step.do === "wait" ? "Wait" : "Nothing more to do"}
          </Typography>
          <Typography>{step.words}</Typography>
        </Block>
      )}
      {looks.last && (
        <Button color="inherit" onClick={looks.strikeLast} sx={{ alignSelf: "flex-start" }}>
          Strike out: {looks.last.words}
        </Button>
      )}
    </Stack>
  );
}

function Look({ why, looks }: { why: string; looks: Looks }) {
  const left = looks.shown.filter((s) => s.seen === null && !s.skipped).length;
  return (
    <div>
      <Typography variant="h1" sx={{ mb: 1 }} data-testid="instruction">
        Lit or dark?
      </Typography>
      <Typography sx={{ mb: 1.5 }}>{why}</Typography>
      {looks.current && left > 0 ? (
        <CurrentPoint key={looks.current.point.point} shown={looks.current} looks={looks} />
      ) : (
        <Typography>All looked at. The next step comes by itself.</Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        {left} to look at. Plug-in tester for receptacles, the rest by eye; never the tester on 240 V.
      </Typography>
    </div>
  );
}

function Switch({ off, on, why, looks }: { off: Handle[]; on: Handle[]; why: string; looks: Looks }) {
  const done = () =>
    looks.record([
      ...on.map((h) => ({ kind: "breaker_switched" as const, breaker: h.breaker, to: "on" as const })),
      ...off.map((h) => ({ kind: "breaker_switched" as const, breaker: h.breaker, to: "off" as const })),
    ]);
  return (
    <Block loud>
      {off.length > 0 && (
        <>
          <Typography variant="h1" data-testid="instruction">
            Turn OFF
          </Typography>
          <Handles handles={off} />
        </>
      )}
      {on.length > 0 && (
        <>
          <Typography variant="h1" data-testid={off.length > 0 ? undefined : "instruction"}>
            Turn ON again
          </Typography>
          <Handles handles={on} />
          <Typography variant="body2">
            Push each fully off first, then on. One that will not stay on stays off.
          </Typography>
        </>
      )}
      <Typography sx={{ my: 1.5 }}>{why}</Typography>
      {off.length > 0 && (
        <Typography variant="body2" sx={{ mb: 1.5 }}>
          Tell everybody in the house first. Check that no medical device, pump or server depends on{" "}
          {off.length > 1 ? "them" : "it"}. If one does, leave it on and call the owner.
        </Typography>
      )}
      <Button variant="contained" size="large" fullWidth onClick={done} sx={{ minHeight: 64 }}>
        {off.length > 0
          ? off.length + on.length > 1
            ? "Done, all are switched"
            : "Done, it is off"
          : "Done, on again"}
      </Button>
    </Block>
  );
}

function Handles({ handles }: { handles: Handle[] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, my: 1 }}>
      {handles.map((h) => (
        <Box
          component="li"
          key={h.breaker}
          sx={{ display: "flex", alignItems: "center", gap: 1.5, py: 0.5, fontSize: "1.5rem" }}
        >
          <Tag text={h.number} size="large" />
          <Typography component="span" variant="body2">
            {h.amps} A{h.claim != null && `, “${h.claim}”`}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

function Sweep({ point, place, breakers, looks }: { point: string; place: string; breakers: Handle[]; looks: Looks }) {
  return (
    <Block loud>
      <Typography variant="h1" data-testid="instruction">
        Where is the tone loudest?
      </Typography>
      <Typography sx={{ mb: 1.5 }}>
        The sender is in {place}. Sweep every breaker twice, then tap the loudest.
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        {breakers.map((h) => (
          <Button
            key={h.breaker}
            variant="outlined"
            sx={{ minWidth: 64, minHeight: 56 }}
            onClick={() => looks.record([{ kind: "tone_heard", point, breaker: h.breaker }])}
          >
            {h.number}
          </Button>
        ))}
        <Button variant="outlined" sx={{ minHeight: 56 }} onClick={() => looks.skipPoint(point, "no tone to be heard")}>
          No tone
        </Button>
      </Box>
    </Block>
  );
}
