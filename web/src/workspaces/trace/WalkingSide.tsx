import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { HomeOverview, RoomToWalk, TraceView } from "../../api/client";
import { Block } from "../../parts/Block";
import { useKeys } from "../../parts/useKeys";
import { CurrentPoint } from "./CurrentPoint";
import { MissingPoint } from "./MissingPoint";
import { RoomRows } from "./RoomRows";
import type { Looks } from "./useLooks";

interface Props {
  home: HomeOverview;
  view: TraceView;
  looks: Looks;
  wide: boolean;
  /** Instruments of a made-up house. */
  kit?: ReactNode;
}

const TITLE = {
  see_all_lit: "See that each one is lit",
  look: "Lit or dark?",
  look_under: "Lit or dark?",
  switch_on: "Seen in this round",
  see_one_lit_again: "See one of these lit again",
  see_downstream: "What went dark with it?",
  done: "Passed over; look after all?",
} as const;

/** What the person who walks looks at, room by room. */
export function WalkingSide({ home, view, looks, wide, kit }: Props) {
  const next = view.next;
  const current = looks.current;
  useKeys({
    d: current && (() => looks.look(current, "dark")),
    l: current && (() => looks.look(current, "lit")),
    s: current && (() => looks.skip(current)),
    v: current && (() => looks.meter(current.point.point)),
  });
  if (
    next.step === "set_up" ||
    next.step === "switch_off" ||
    next.step === "switch_to" ||
    next.step === "follow_tone" ||
    next.step === "stop" ||
    looks.shown.length === 0
  ) {
    return (next.step === "switch_off" || next.step === "switch_to") && wide ? <WaitForPanel /> : null;
  }
  const rooms: RoomToWalk[] = next.rooms;
  const listening = next.step === "look_under" && next.listen === true;
  const todo = looks.shown.filter((s) => s.seen === null && !s.skipped);
  return (
    <Block
      title={
        <>
          <Typography variant="h3" component="span" sx={{ color: "secondary.main", display: "block" }}>
            {listening ? "Listening" : "Walking"}
          </Typography>
          {listening ? "Does the radio play?" : TITLE[next.step]}
        </>
      }
    >
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        {listening
          ? "From the panel, by ear: it plays, the point is lit; no sound, it is dark."
          : `${next.step === "see_one_lit_again" ? "One is enough." : `${todo.length} to look at.`} Plug-in tester for receptacles, lights and appliances by eye; never the tester on 240 V.`}
        {wide && " Keys: d dark, l lit, s skip, v volts, u strikes out."}
      </Typography>
      {!wide && current && (
        <CurrentPoint key={current.point.point} shown={current} looks={looks} listening={listening} />
      )}
      {!wide && kit}
      {rooms.map((room) => (
        <RoomRows
          key={room.room}
          room={room}
          looks={looks}
          wide={wide}
          listening={listening}
          bulk={!listening && ["look", "look_under", "see_all_lit"].includes(next.step)}
        />
      ))}
      {["look", "look_under", "switch_on"].includes(next.step) && <SomethingElse home={home} looks={looks} />}
      <MissingPoint home={home} room={current?.roomId ?? rooms[0]?.room ?? null} looks={looks} />
    </Block>
  );
}

function WaitForPanel() {
  return (
    <Block title="Walking">
      <Typography color="text.secondary">
        Wait until the breaker is off; then the points to look at are listed here.
      </Typography>
    </Block>
  );
}

/** A point that nobody asked about went dark: every fact counts. */
function SomethingElse({ home, looks }: { home: HomeOverview; looks: Looks }) {
  const asked = new Set(looks.shown.map((s) => s.point.point));
  const others = home.points.filter((p) => !asked.has(p.id));
  if (others.length === 0) return null;
  return (
    <TextField
      select
      size="small"
      fullWidth
      label="Something else went dark?"
      value=""
      onChange={(event) => looks.noticedDark(event.target.value)}
      sx={{ mt: 2 }}
    >
      {others.map((point) => (
        <MenuItem key={point.id} value={point.id}>
          {home.rooms.find((r) => r.id === point.room)?.name}, {point.name} ({point.kind})
        </MenuItem>
      ))}
    </TextField>
  );
}
