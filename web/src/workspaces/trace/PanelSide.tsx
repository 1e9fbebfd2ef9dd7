import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import type { Blade, Fact, HomeOverview, NextStep, TraceView } from "../../api/client";
import { tone } from "../../app/theme";
import { useClocks } from "../../app/useClocks";
import { BigBlade } from "../../drawing/BigBlade";
import { bladeOf, bladesOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { CautionsNow, TraceCautions } from "../../parts/Cautions";
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

function Instruction({ home, view, looks, blade }: Props & { blade: (id: string) => Blade | undefined }) {
  const next = view.next;
  const { due } = useClocks(home);
  if (due.length > 0)
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
          why={`${next.left === 1 ? "1 point" : `${next.left} points`} to look at. Enough seen? Then switch it on; what was not looked at stays open.`}
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
          <Alert severity="error" variant="filled" icon={false} sx={{ bgcolor: "#a8201a", color: "#fff" }}>
            <Typography variant="h1" sx={{ mb: 1 }} data-testid="instruction">
              Stop. Turn the main OFF and call an electrician
            </Typography>
            <Typography>
              {next.place} read {next.volts} V, more than it may have. Where the neutral is lost, one leg goes high and
              the other low: things burn out and wires burn. Unplug what is plugged in. Lamps bright in one part of the
              house and dim in another? Call the utility, too. The line-side lugs stay live with the main off.
            </Typography>
          </Alert>
          <Block title="When it is mended">
            <Typography variant="body2">The trace goes on when this point reads right.</Typography>
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

interface SwitchToProps {
  home: HomeOverview;
  looks: Looks;
  off: string[];
  on: string[];
  why: string;
}

/** Several handles at once: which go off and which go on again. */
function SwitchTo({ home, looks, off, on, why }: SwitchToProps) {
  const [cannot, setCannot] = useState(false);
  const [reason, setReason] = useState("");
  const done = () =>
    looks.record([
      ...on.map((breaker): Fact => ({ kind: "breaker_switched", breaker, to: "on" })),
      ...off.map((breaker): Fact => ({ kind: "breaker_switched", breaker, to: "off" })),
    ]);
  const row = (ids: string[]) => (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 1, fontSize: "1.5rem" }}>
      {ids.map((id) => (
        <Tag key={id} text={bladeOf(home, id)?.tag ?? "?"} size="large" />
      ))}
    </Box>
  );
  return (
    <>
      <Said
        over="At the panel"
        title={`Turn ${(off.length || on.length) === 1 ? "this" : "these"} ${off.length > 0 ? "OFF" : "ON again"}`}
        loud
      >
        {off.length > 0 && row(off)}
        {on.length > 0 && (
          <>
            {off.length > 0 && <Typography variant="h2">and {on.length > 1 ? "these" : "this"} ON again</Typography>}
            {row(on)}
            <Typography variant="body2">Push {on.length > 1 ? "each" : "it"} fully off first, then on.</Typography>
          </>
        )}
        {off.length > 0 && (
          <Typography variant="body2" sx={{ my: 1 }}>
            Tell everybody in the house first. Nobody depends on {off.length > 1 ? "them" : "it"}: no medical device,
            pump, server?
          </Typography>
        )}
        <Stack direction="row" spacing={1.5}>
          <Button variant="contained" size="large" onClick={done}>
            {off.length + on.length > 1 ? "Done, they are" : off.length > 0 ? "Done, it is off" : "Done, it is on"}
          </Button>
          {off.length > 0 && (
            <Button variant="outlined" size="large" aria-expanded={cannot} onClick={() => setCannot(!cannot)}>
              Can’t
            </Button>
          )}
        </Stack>
        {cannot && (
          <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 2 }}>
            {off.map((id) => (
              <Button
                key={id}
                variant="outlined"
                onClick={() =>
                  looks.record([{ kind: "breaker_kept", breaker: id, kept: "on", reason: reason || "as said" }])
                }
              >
                {bladeOf(home, id)?.tag} must stay on
              </Button>
            ))}
            <TextField
              size="small"
              fullWidth
              label="Why"
              placeholder="somebody works there until five"
              value={reason}
              onChange={(e) => setReason(e.target.value)}
              helperText="For good or for now: below, “Must stay on” takes it back."
            />
          </Stack>
        )}
      </Said>
      <Block title={off.length + on.length > 1 ? "Why these" : "Why this one"}>
        <Typography variant="body2">{why}</Typography>
      </Block>
    </>
  );
}

function SwitchOff({ home, view, looks, blade, why }: Props & { blade: Blade; why: string }) {
  const [cannot, setCannot] = useState(false);
  const [reason, setReason] = useState("");
  const others = view.to_switch
    .filter((id) => id !== blade.breaker)
    .map((id) => bladeOf(home, id))
    .filter((b) => b !== undefined);
  return (
    <>
      <Said over="At the panel" title="Turn OFF, leave the rest ON" loud>
        <BigBlade blade={blade} />
        <Typography variant="body2" sx={{ my: 1 }}>
          Tell everybody in the house first. Nobody depends on it: no medical device, pump, server?
        </Typography>
        <Stack direction="row" spacing={1.5}>
          <Button variant="contained" size="large" onClick={() => looks.switchBreaker([blade.breaker], "off")}>
            Done, it is off
          </Button>
          <Button variant="outlined" size="large" aria-expanded={cannot} onClick={() => setCannot(!cannot)}>
            Can’t
          </Button>
        </Stack>
        {cannot && (
          <Stack spacing={1.5} sx={{ mt: 2 }}>
            <Typography variant="h3">It must stay on</Typography>
            <TextField size="small" label="Why" value={reason} onChange={(e) => setReason(e.target.value)} />
            <Button
              variant="outlined"
              onClick={() =>
                looks.record([
                  { kind: "breaker_kept", breaker: blade.breaker, kept: "on", reason: reason || "as said" },
                ])
              }
            >
              Keep {blade.tag} on for good
            </Button>
            <Typography variant="h3">Or switch another one off now</Typography>
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
              {others.map((b) => (
                <Button
                  key={b.breaker}
                  variant="outlined"
                  aria-label={`${b.tag} is off`}
                  onClick={() => looks.switchBreaker([b.breaker], "off")}
                >
                  {b.tag} is off
                </Button>
              ))}
            </Stack>
          </Stack>
        )}
      </Said>
      <Block title="Why this one">
        <Typography variant="body2">{why}</Typography>
      </Block>
    </>
  );
}

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

interface SaidProps {
  over: string;
  title: string;
  why?: string;
  loud?: boolean;
  children?: ReactNode;
}

function Said({ over, title, why, loud = false, children }: SaidProps) {
  return (
    <Block loud={loud}>
      <Typography variant="h3" component="p" sx={{ color: loud ? tone("blaze") : tone("pine"), mb: 0.5 }}>
        {over}
      </Typography>
      <Typography variant="h1" sx={{ mb: 1 }} data-testid="instruction">
        {title}
      </Typography>
      {why && <Typography sx={{ mb: children ? 1.5 : 0 }}>{why}</Typography>}
      {children}
    </Block>
  );
}
