import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, JobMove } from "../../api/client";
import { newId } from "../../api/record";
import { useBeginJob } from "../../app/useBeginJob";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";

const JOBS = [
  ["reset", "reset a breaker that tripped"],
  ["replace", "replace a breaker by one of the same kind"],
  ["tighten", "tighten the terminals of a breaker"],
  ["take-out", "take a spare breaker out"],
  ["fill", "put a filler into an open space"],
  ["one-pole", "120 V in place of 240 V"],
  ["feeder", "a feeder for a sub-panel"],
  ["make-up", "make up a new panel, before the walls are closed"],
  ["use", "put a new panel to use"],
  ["moved", "record that an electrician moved a breaker"],
] as const;
const FEEDERS = ["30", "40", "50", "60", "70", "80", "90", "100"].map((amps) => [amps, `${amps} A`] as const);
type Kind = (typeof JOBS)[number][0];

/** Jobs that need no search: chosen, and the sheet is made. */
export function OtherJobs({ home }: { home: HomeOverview }) {
  const begin = useBeginJob(home.id);
  const [kind, setKind] = useState<Kind>("replace");
  const [on, setOn] = useState(home.panels[0]?.panel.id ?? "");
  const [picked, setPicked] = useState("");
  const [space, setSpace] = useState("");
  const [text, setText] = useState("");
  const [amps, setAmps] = useState("60");
  const view = home.panels.find((one) => one.panel.id === on) ?? home.panels[0];
  if (view === undefined) return null;
  const panel = view.panel.id;
  const breakers = view.breakers.filter((one) => kind !== "one-pole" || one.poles.length === 2);
  const breaker = breakers.find((one) => one.breaker === picked) ?? breakers[0];
  // Where it goes: an open space for a filler, room for as many poles as it has for a breaker.
  const poles = kind === "feeder" ? 2 : (breaker?.poles.length ?? 1);
  const open =
    kind === "fill"
      ? view.open.map((one) => one.number)
      : view.open.flatMap((one) => one.fits).filter((fit) => fit.split("-").length === poles);
  const at = open.includes(space) ? space : (open[0] ?? "");
  const of: Record<Kind, boolean> = {
    reset: true,
    replace: true,
    tighten: true,
    "take-out": true,
    fill: false,
    "one-pole": true,
    feeder: false,
    "make-up": false,
    use: false,
    moved: true,
  };
  const needsPlace = kind === "fill" || kind === "feeder" || kind === "moved";
  const needsText = kind === "feeder" || kind === "moved";
  const move = (): JobMove | null => {
    if (kind === "fill") return at === "" ? null : { does: "fill", at };
    if (kind === "feeder") {
      const what = { breaker: newId(), amps: Number(amps), what: "", neutral: true, feeds: text.trim() };
      return at === "" ? null : { does: "new", at: at.split("-"), ...what };
    }
    if (breaker === undefined) return null;
    switch (kind) {
      case "replace":
        return { does: "replace", breaker: breaker.breaker, amps: breaker.amps, protection: breaker.protection };
      case "tighten":
        return { does: "tighten", breaker: breaker.breaker };
      case "take-out":
        return { does: "take_out", breaker: breaker.breaker };
      case "one-pole":
        return {
          does: "one_pole",
          breaker: breaker.breaker,
          at: breaker.number.split("-")[0] ?? "",
          amps: breaker.amps,
        };
      case "moved":
        return at === "" ? null : { does: "move", breaker: breaker.breaker, at: at.split("-") };
      default:
        return null;
    }
  };
  const make = () => {
    if (kind === "reset") {
      if (breaker) void begin({ job: "reset", breaker: breaker.breaker });
      return;
    }
    if (kind === "make-up" || kind === "use") {
      void begin({ job: "make_up", panel, closed: kind === "use" });
      return;
    }
    const one = move();
    if (one === null) return;
    void begin(
      kind === "moved" ? { job: "done", panel, moves: [one], who: text.trim() } : { job: "panel", panel, moves: [one] },
    );
  };
  return (
    <Block title="Make a job sheet">
      <Stack spacing={2} sx={{ pt: 1 }}>
        <Choice label="What is to be done" value={kind} options={JOBS} onChange={setKind} />
        {home.panels.length > 1 && (
          <Choice
            label="In which panel"
            value={panel}
            options={home.panels.map((one) => [one.panel.id, one.panel.name] as const)}
            onChange={setOn}
          />
        )}
        {of[kind] && breaker && (
          <Choice
            label="Breaker"
            value={breaker.breaker}
            options={breakers.map(
              (one) => [one.breaker, `${one.number}: ${one.wording || one.claim || "not traced"}`] as const,
            )}
            onChange={setPicked}
          />
        )}
        {needsPlace && (
          <Choice
            label={kind === "moved" ? "To which space" : kind === "feeder" ? "In which spaces" : "Which space"}
            value={at}
            options={open.length > 0 ? open.map((one) => [one, one] as const) : ([["", "there is no room"]] as const)}
            onChange={setSpace}
          />
        )}
        {kind === "feeder" && <Choice label="Breaker" value={amps} options={FEEDERS} onChange={setAmps} />}
        {needsText && (
          <TextField
            label={kind === "moved" ? "Who did it, and when" : "Which panel will it feed"}
            value={text}
            onChange={(event) => setText(event.target.value)}
            autoComplete="off"
            slotProps={{ htmlInput: { maxLength: 60 } }}
          />
        )}
        <Button
          variant="outlined"
          onClick={make}
          disabled={
            (needsText && text.trim() === "") || (of[kind] && breaker === undefined) || (needsPlace && at === "")
          }
          sx={{ alignSelf: "start" }}
        >
          Make the sheet
        </Button>
        <Typography variant="body2" color="text.secondary">
          A receptacle, switch or light: open the point on the House screen.
        </Typography>
      </Stack>
    </Block>
  );
}
