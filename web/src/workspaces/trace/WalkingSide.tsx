import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { HomeOverview, RoomToWalk, Seen, TraceView } from "../../api/client";
import { StepCardShown } from "../../parts/StepCardShown";
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

/** What the person who walks looks at, room by room. */
export function WalkingSide({ home, view, looks, wide, kit }: Props) {
  const card = view.walk;
  const current = looks.current;
  useKeys({
    d: current && (() => looks.look(current, "dark")),
    l: current && (() => looks.look(current, "lit")),
    s: current && (() => looks.skip(current)),
    v: current && (() => looks.meter(current.point.point)),
  });
  // An alarm is said once, at the panel's side.
  if (card.weight === "alarm") return null;
  if (card.looking == null || looks.shown.length === 0) {
    // A phone has no room for "wait" on the other side; what there is to do is said on every screen.
    const shown = card.weight === "loud" || (wide && view.panel.weight === "loud");
    return shown ? <StepCardShown card={card} home={home.id} onFacts={looks.act} /> : null;
  }
  const { listen, rest_lit, rest_dark, noticed } = card.looking;
  const bulk: Seen[] = [...(rest_dark ? ["dark" as const] : []), ...(rest_lit ? ["lit" as const] : [])];
  const rooms: RoomToWalk[] = "rooms" in view.next ? view.next.rooms : [];
  const todo = looks.shown.filter((s) => s.seen === null && !s.skipped);
  return (
    <StepCardShown card={card} home={home.id} onFacts={looks.act}>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        {todo.length} to look at.
        {wide && " Keys: d dark, l lit, s skip, v volts, u strikes out."}
      </Typography>
      {!wide && current && <CurrentPoint key={current.point.point} shown={current} looks={looks} listening={listen} />}
      {!wide && kit}
      {rooms.map((room) => (
        <RoomRows key={room.room} room={room} looks={looks} wide={wide} listening={listen} bulk={bulk} />
      ))}
      {noticed && <SomethingElse home={home} looks={looks} />}
      <MissingPoint home={home} room={current?.roomId ?? rooms[0]?.room ?? null} looks={looks} />
    </StepCardShown>
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
