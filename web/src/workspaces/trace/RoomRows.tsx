import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { RoomToWalk, Seen } from "../../api/client";
import { tone } from "../../app/theme";
import { kindAfter } from "../../parts/words";
import { Between, HowToLook, PointVolts } from "./PointVolts";
import type { Looks, Shown } from "./useLooks";

interface Props {
  room: RoomToWalk;
  looks: Looks;
  wide: boolean;
  /** What the rest of the room may be told at one go. */
  bulk: Seen[];
  /** A radio there is listened to from the panel. */
  listening: boolean;
}

/** One room of the walk. */
export function RoomRows({ room, looks, wide, bulk, listening }: Props) {
  const rows = looks.shown.filter((s) => s.room === room.name);
  const todo = rows.filter((s) => s.seen === null && !s.skipped);
  return (
    <Box component="section" aria-label={room.name} sx={{ mt: 1.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, borderBottom: `2px solid ${tone("rule")}` }}>
        <Typography variant="h3" sx={{ flex: 1, py: 1 }}>
          {room.name},
          <Box component="span" sx={{ fontWeight: 400, color: "text.secondary" }}>
            {" "}
            {todo.length} to look at{room.on_card && ", named on the old card"}
            {(room.who ?? []).length > 0 &&
              `, ${room.who?.join(" and ")} ${room.who?.length === 1 ? "is" : "are"} there`}
          </Box>
        </Typography>
        {todo.length > 1 &&
          bulk.map((seen) => (
            <Button
              key={seen}
              color="inherit"
              onClick={() => looks.restOf(room, seen)}
              aria-label={`Rest ${seen} in ${room.name}`}
            >
              Rest {seen}
            </Button>
          ))}
      </Box>
      <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {rows.map((shown) =>
          wide ? (
            <WideRow key={shown.point.point} shown={shown} looks={looks} listening={listening} />
          ) : (
            <NarrowRow key={shown.point.point} shown={shown} looks={looks} />
          ),
        )}
      </Box>
    </Box>
  );
}

const rule = { borderBottom: `1px solid ${tone("rule")}` };

function WideRow({ shown, looks, listening }: { shown: Shown; looks: Looks; listening: boolean }) {
  const current = looks.current === shown;
  const metering = looks.metering === shown.point.point;
  const answerStyle = (on: boolean, fill: string, ink: string) => ({
    minWidth: 62,
    minHeight: 44,
    borderRadius: 0,
    color: on ? ink : "inherit",
    bgcolor: on ? fill : "transparent",
  });
  const name = `${shown.room}, ${shown.point.name}`;
  return (
    <Box
      component="li"
      data-point={shown.point.name}
      aria-current={current ? "step" : undefined}
      sx={{
        ...rule,
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 1,
        py: 0.75,
        pl: 1,
        borderLeft: current ? `5px solid ${tone("blaze")}` : "5px solid transparent",
      }}
    >
      <PointWords shown={shown} />
      <Box
        role="group"
        aria-label={name}
        sx={{ display: "flex", border: `2px solid ${tone("ink")}`, borderRadius: 1, overflow: "hidden", flexShrink: 0 }}
      >
        <Button
          aria-pressed={shown.seen === "dark"}
          onClick={() => looks.look(shown, "dark")}
          sx={answerStyle(shown.seen === "dark", tone("dark"), tone("onDark"))}
        >
          {listening ? "Silent" : "Dark"}
        </Button>
        <Button
          aria-pressed={shown.seen === "lit"}
          onClick={() => looks.look(shown, "lit")}
          sx={answerStyle(shown.seen === "lit", tone("lit"), tone("onLit"))}
        >
          {listening ? "Plays" : "Lit"}
        </Button>
        <Button
          aria-pressed={shown.skipped}
          onClick={() => looks.skip(shown)}
          sx={answerStyle(shown.skipped, tone("slate"), tone("onSlate"))}
        >
          Skip
        </Button>
        <Button
          aria-expanded={metering}
          onClick={() => looks.meter(metering ? null : shown.point.point)}
          sx={answerStyle(metering, tone("slate"), tone("onSlate"))}
        >
          Volts
        </Button>
      </Box>
      <Box sx={{ width: "100%", pr: 1 }}>
        <HowToLook shown={shown} looks={looks} />
        <Between shown={shown} />
        <PointVolts shown={shown} looks={looks} />
      </Box>
    </Box>
  );
}

function NarrowRow({ shown, looks }: { shown: Shown; looks: Looks }) {
  const said = shown.seen ?? (shown.skipped ? "skipped" : shown.between === null ? "" : `${shown.between} V`);
  return (
    <Box component="li" sx={rule} data-point={shown.point.name}>
      <Button
        color="inherit"
        fullWidth
        onClick={() => looks.choose(shown.point.point)}
        sx={{
          justifyContent: "space-between",
          textAlign: "left",
          px: 0,
          minHeight: 48,
          fontWeight: 400,
          fontFamily: "inherit",
        }}
      >
        <PointWords shown={shown} />
        <strong>{said}</strong>
      </Button>
    </Box>
  );
}

function PointWords({ shown }: { shown: Shown }) {
  return (
    <Box component="span" sx={{ flex: 1, minWidth: 0 }}>
      <strong>{shown.point.name}</strong>{" "}
      <Box component="span" sx={{ color: "text.secondary" }}>
        {kindAfter(shown.point.name, shown.point.kind)}
        {shown.point.volts === 240 && ", 240 V"}
        {shown.point.again && !shown.point.anew && ", look once more"}
        {shown.point.anew && ", find it anew by its place and name"}
        {shown.point.plugged && ", tester plugged in"}
        {shown.waiting && ", being sent"}
      </Box>
    </Box>
  );
}
