import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { BreakerView, HomeOverview, NextStep, TraceView } from "../../api/client";
import { useClocks } from "../../app/useClocks";
import { BigBlade } from "../../drawing/BigBlade";
import { bladeOf, bladesOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { Alarm } from "../../parts/Alarm";
import { Block } from "../../parts/Block";
import { CautionsNow, TraceCautions } from "../../parts/Cautions";
import { Said } from "./Said";
import { SwitchOff, SwitchTo } from "./Switching";
import { VoltsEntry } from "./VoltsEntry";
import type { Looks } from "./useLooks";

interface Props {
  home: HomeOverview;
  view: TraceView;
  looks: Looks;
}

const MISSING = {
  panel: ["Describe the panel first", "panel"],
  breakers: ["Enter the breakers first", "panel"],
  points: ["Enter rooms and points first", "house"],
} as Record<string, [string, string]>;

/** What the person at the panel does next. */
export function PanelSide({ home, view, looks }: Props) {
  const blade = (id: string) => bladeOf(home, id);
  return (
    <Stack spacing={2} data-testid="panel-side" data-step={view.next.step} data-seq={view.seq}>
      <CautionsNow cautions={view.cautions} />
      <Instruction home={home} view={view} looks={looks} blade={blade} />
      <KeptOn home={home} looks={looks} />
      <TraceCautions />
    </Stack>
  );
}

function Instruction({ home, view, looks, blade }: Props & { blade: (id: string) => BreakerView | undefined }) {
  const next = view.next;
  const { due } = useClocks(home);
  if (due.length > 0 && next.step !== "stop")
    return (
      <Said
        over="At the panel"
        title={`Turn ${tags(home, due)} ON again now`}
        why="What may be without power only so long comes first; the trace goes on after. If it does not stay on, leave it off and call an electrician."
        loud
      />
    );
  switch (next.step) {
    case "set_up": {
      const [words, path] = MISSING[next.missing] ?? ["Describe the home first", "panel"];
      return (
        <Said
          over="Before the trace"
          title={words}
          why="A trace needs the panel, its breakers, and the points to look at."
        >
          <Button variant="contained" component={Link} to={`/h/${home.id}/${path}`}>
            Go there
          </Button>
        </Said>
      );
    }
    case "see_all_lit":
      return (
        <Said
          over="At the panel"
          title={next.left_off.length === 0 ? "Leave everything ON" : `Everything ON but ${next.left_off.join(", ")}`}
          why="A point can be proven only if it was seen lit before. Switches on, lamps in, GFCIs reset; then look at each point once."
        />
      );
    case "switch_off": {
      const b = blade(next.breaker);
      return b ? <SwitchOff key={b.breaker} home={home} view={view} looks={looks} blade={b} why={next.why} /> : null;
    }
    case "switch_to":
      return <SwitchTo home={home} looks={looks} off={next.off} on={next.on} why={next.why} />;
    case "look_under":
      return (
        <Said
          over="At the panel"
          title={next.off.length === 0 ? "Leave everything ON" : `Leave ${tags(home, next.off)} OFF`}
          why={next.why}
        >
          {next.off.length > 0 && (
            <Button variant="outlined" onClick={() => looks.switchBreaker(next.off, "on")}>
              {next.off.length === 1 ? "It is on again" : "They are on again"}
            </Button>
          )}
        </Said>
      );
    case "look": {
      const b = blade(next.breaker);
      return (
        <Said
          over="At the panel"
          title={`Leave ${b?.tag ?? "it"} OFF`}
          why={`${next.left === 1 ? "1 point" : `${next.left} points`} to look at. Done looking? Switch it on; points not looked at stay open.`}
        >
          <Button variant="outlined" onClick={() => looks.switchBreaker([next.breaker], "on")}>
            It is on again
          </Button>
        </Said>
      );
    }
    case "switch_on":
      return (
        <Said over="At the panel" title="Turn ON again" why={next.why} loud>
          {next.breakers.map((id) => {
            const b = blade(id);
            return b && <BigBlade key={id} blade={b} />;
          })}
          <Typography variant="body2" sx={{ my: 1 }}>
            Push it fully off first, then on. If it does not stay on, leave it off and call an electrician.
          </Typography>
          <Button variant="contained" size="large" onClick={() => looks.switchBreaker(next.breakers, "on")}>
            Done, it is on
          </Button>
        </Said>
      );
    case "see_one_lit_again":
      return (
        <Said
          over="At the panel"
          title={`Is ${blade(next.breaker)?.tag ?? "it"} really on?`}
          why="An old breaker may look on and not have latched. See one of its points lit again before going on."
        />
      );
    case "follow_tone":
      return <FollowTone home={home} looks={looks} next={next} />;
    case "see_downstream":
      return (
        <Said
          over="At the GFCI"
          title={`${next.name} is tripped on purpose`}
          why="See what went dark with it; mark it dark in the list. Then press its reset button. Dark looks now say nothing of a breaker."
          loud
        >
          <Button
            variant="contained"
            size="large"
            onClick={() =>
              looks.record([
                { kind: "device_worked", device: next.device, worked: "reset" },
                { kind: "gfci_protects", device: next.device, points: next.protects },
              ])
            }
          >
            Done, it is reset
          </Button>
        </Said>
      );
    case "stop":
      return (
        <>
          <Alarm>
            <Typography variant="h1" sx={{ mb: 1 }} data-testid="instruction">
              Stop. Turn the main OFF and call an electrician
            </Typography>
            <Typography>
              {next.place} read {next.volts} V, more than it may have. Where the neutral is lost, one leg goes high and
              the other low: things burn out and wires burn. Unplug what is plugged in. Lamps bright in one part of the
              house and dim in another? Call the utility, too. The line-side lugs stay live with the main off.
            </Typography>
          </Alarm>
          <Block title="When it is mended">
            <Typography variant="body2">
              The trace goes on when this point reads right. A 240 V outlet that is entered with 120 V? Say so at the
              point, under House.
            </Typography>
            <VoltsEntry
              key={next.line}
              label="Volts now"
              onEnter={(volts) => looks.record([{ kind: "volts_read", point: next.point, volts }])}
            />
            <Button variant="outlined" onClick={() => looks.record([{ kind: "line_struck", line: next.line }])}>
              It was mistyped
            </Button>
          </Block>
        </>
      );
    case "done":
      return (
        <Said over="The trace" title="Nothing more to switch" why={next.summary}>
          <Button variant="contained" component={Link} to={`/h/${home.id}/directory`}>
            See the card
          </Button>
        </Said>
      );
  }
}

const tags = (home: HomeOverview, ids: string[]): string => ids.map((id) => bladeOf(home, id)?.tag ?? "?").join(", ");

/** A sender is plugged in at a point; where at the panel is it loudest? */
function FollowTone({ home, looks, next }: Omit<Props, "view"> & { next: Extract<NextStep, { step: "follow_tone" }> }) {
  const [breaker, setBreaker] = useState("");
  return (
    <Said over="With the tone tracer" title={`Plug the sender in: ${next.room}, ${next.name}`} why={next.why} loud>
      <Typography variant="body2" sx={{ mb: 1.5 }}>
        Only at 120 V, never at 240 V. Then sweep the receiver over every breaker twice and take the loudest.
      </Typography>
      <TextField
        select
        size="small"
        fullWidth
        label="Loudest at"
        value={breaker}
        onChange={(e) => setBreaker(e.target.value)}
        sx={{ mb: 1.5 }}
      >
        {bladesOf(home).map((b) => (
          <MenuItem key={b.breaker} value={b.breaker}>
            {b.tag}
            {b.claim && ` “${b.claim}”`}
          </MenuItem>
        ))}
      </TextField>
      <Stack direction="row" spacing={1.5}>
        <Button
          variant="contained"
          disabled={breaker === ""}
          onClick={() => looks.record([{ kind: "tone_heard", point: next.point, breaker }])}
        >
          Heard there
        </Button>
        <Button variant="outlined" onClick={() => looks.skipPoint(next.point, "no tone to be heard")}>
          No tone
        </Button>
      </Stack>
    </Said>
  );
}

function KeptOn({ home, looks }: { home: HomeOverview; looks: Looks }) {
  const kept = bladesOf(home).filter((b) => b.kept === "on");
  if (kept.length === 0) return null;
  return (
    <Block title="Must stay on">
      {kept.map((b) => (
        <Typography key={b.breaker} variant="body2" sx={{ display: "flex", gap: 1, alignItems: "center", mb: 0.5 }}>
          <Tag text={b.tag} /> <span style={{ flex: 1 }}>{b.kept_reason}</span>
          <Button
            size="small"
            color="inherit"
            aria-label={`May be off: ${b.tag}`}
            onClick={() => looks.record([{ kind: "breaker_kept", breaker: b.breaker }])}
          >
            May be off
          </Button>
        </Typography>
      ))}
    </Block>
  );
}
