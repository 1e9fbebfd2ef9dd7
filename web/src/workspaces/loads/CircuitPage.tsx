import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { CircuitLoads, HeatDiagnosis, LoadLine, LoadsView } from "../../api/client";
import { useLoadMoves, useLoads, useRunning } from "../../api/queries";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { LoadTrack, TrackKey } from "../../drawing/LoadTrack";
import { Tag } from "../../drawing/Tag";
import { TripStairs } from "../../drawing/TripStairs";
import { Block } from "../../parts/Block";
import { Empty } from "../../parts/Empty";
import { Loaded } from "../../parts/Loaded";
import { dateOf } from "../../parts/when";
import { amps } from "../../parts/words";
import { OrderOfPoints } from "./OrderOfPoints";
import { EditLoad } from "./EditLoad";
import { ReadBreakerVolts } from "./read/ReadBreakerVolts";
import { ReadCircuit } from "./read/ReadCircuit";
import { ReadLoad } from "./read/ReadLoad";
import { SeeHeat } from "./read/SeeHeat";

/** One circuit: what is on it, what that comes to, what may not run together. */
export function CircuitPage() {
  const home = useThisHome();
  const { breaker } = useParams();
  const loads = useLoads(home.id);
  return (
    <Loaded query={loads} what="loads">
      {(view: LoadsView) => {
        const circuit = view.circuits.find((c) => c.breaker === breaker);
        if (!circuit) return <Empty title="No such circuit" words="Its breaker is not in the panel any more." />;
        return <Circuit key={circuit.breaker} home={home.id} circuit={circuit} />;
      }}
    </Loaded>
  );
}

function Circuit({ home, circuit }: { home: string; circuit: CircuitLoads }) {
  const [off, setOff] = useState<readonly string[]>([]);
  const [moves, setMoves] = useState<string | null>(null);
  const [edited, setEdited] = useState<string | null>(null);
  const [read, setRead] = useState<string | null>(null);
  const readLoad = circuit.loads.find((load) => load.load === read);
  const ticked = circuit.loads.map((load) => load.load).filter((load) => !off.includes(load));
  const tick = (load: string) => setOff(off.includes(load) ? off.filter((o) => o !== load) : [...off, load]);
  const running = useRunning(home, circuit.breaker, ticked);
  const wire = circuit.wire == null ? "wire not read" : `${circuit.wire}, ${circuit.wire_amps} A`;
  const thin = circuit.wire_amps != null && circuit.wire_amps < circuit.breaker_amps ? circuit.wire_amps : null;
  const marks = [
    ...(running.data === undefined
      ? []
      : [{ amps: running.data.amps, words: `${amps(running.data.amps)} A as ticked` }]),
    ...(thin === null ? [] : [{ amps: thin, words: `wire ${thin} A` }]),
    ...(off.length > 0 ? [{ amps: circuit.connected, words: `${amps(circuit.connected)} A all on` }] : []),
  ];
  return (
    <Box sx={{ maxWidth: 1080 }}>
      <Button component={Link} to={`/h/${home}/loads`} color="inherit" sx={{ mb: 1 }}>
        All circuits
      </Button>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", mb: 1 }}>
        <Tag text={circuit.number} size="large" kind={circuit.only_claimed ? "likely" : "proven"} />
        <Box>
          <Box sx={{ fontWeight: 700 }}>
            {circuit.feeds ?? (circuit.about === "" ? "Nothing proven yet" : circuit.about)}
          </Box>
          <Box sx={{ color: "text.secondary" }}>
            {circuit.breaker_amps} A breaker; {wire}
            {circuit.only_claimed && circuit.about !== "" ? "; the old card says so, nothing is proven" : ""}
          </Box>
        </Box>
      </Stack>
      <Typography variant="h1" data-testid="sentence" sx={{ fontSize: { xs: "1.25rem", md: "1.5rem" } }}>
        {circuit.sentence}
      </Typography>
      {circuit.read_next != null && (
        <Typography sx={{ mt: 0.5 }}>To settle it, read what the {circuit.read_next} takes.</Typography>
      )}
      {circuit.stands !== "nothing" && (
        <Box sx={{ my: 2 }}>
          <TrackKey />
          <LoadTrack circuit={circuit} tall />
          <Box sx={{ display: "flex", fontSize: "0.85rem", color: "text.secondary" }}>
            <Box sx={{ width: "50%", textAlign: "right", pr: 0.5 }}>{circuit.limit} A</Box>
            <Box sx={{ flex: 1, textAlign: "right" }}>{2 * circuit.limit} A</Box>
          </Box>
          {circuit.measured != null && (
            <Typography variant="body2" color="text.secondary">
              {amps(circuit.measured.amps)} A by {circuit.measured.with}
              {circuit.measured.running.length > 0 ? `, with ${circuit.measured.running.join(", ")} on` : ""}. A reading
              of one moment is never what a circuit carries at most.
            </Typography>
          )}
        </Box>
      )}
      <Box
        sx={{
          display: "grid",
          gap: 3,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
        }}
      >
        <Box>
          <Typography variant="h2">What runs</Typography>
          <Box component="ul" aria-label="Loads on it" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {circuit.loads.map((load) => (
              <LoadRow
                key={load.load}
                load={load}
                ticked={!off.includes(load.load)}
                onTick={() => tick(load.load)}
                onEdit={() => setEdited(load.load)}
                onRead={() => setRead(load.load)}
                onMove={() => setMoves(moves === load.load ? null : load.load)}
              />
            ))}
          </Box>
          {running.data !== undefined && circuit.loads.length > 0 && (
            <Typography sx={{ mt: 1 }} role="status" data-testid="ticked">
              <b>{amps(running.data.amps)} A as ticked.</b> {running.data.words}
            </Typography>
          )}
          {circuit.without_load.length > 0 && (
            <Typography color="text.secondary" sx={{ mt: 1 }}>
              {circuit.without_load.length === 1 ? "One point" : `${circuit.without_load.length} points`} of it without
              anything entered.
            </Typography>
          )}
          <Stack direction="row" useFlexGap spacing={1} sx={{ mt: 1.5, flexWrap: "wrap" }}>
            <Button component={Link} to={`/h/${home}/loads/enter`} variant="outlined">
              Enter what is where
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => setRead("circuit")}>
              A clamp reading
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => setRead("volts")}>
              Volts at the breaker
            </Button>
            <Button variant="outlined" color="inherit" onClick={() => setRead("heat")}>
              A thermal picture
            </Button>
          </Stack>
        </Box>
        <Stack spacing={2}>
          {circuit.steps != null && marks.length > 0 && circuit.loads.length > 0 && (
            <TripStairs steps={circuit.steps} marks={marks} />
          )}
          {circuit.diagnosis != null && (
            <Block
              title="The breaker by its volts"
              loud={circuit.diagnosis.state === "bad" || circuit.diagnosis.state === "upstream"}
            >
              <Typography data-testid="diagnosis" sx={{ fontWeight: 700 }}>
                {circuit.diagnosis.words}
              </Typography>
              <Typography sx={{ mt: 0.5 }}>{circuit.diagnosis.next}</Typography>
            </Block>
          )}
          {circuit.heat != null && <HeatBlock home={home} heat={circuit.heat} />}
          {circuit.disagrees != null && <Block title="Does not agree">{circuit.disagrees}</Block>}
          {moves !== null && <MovesBlock home={home} load={moves} />}
          {circuit.not_together.length > 0 && (
            <Block title="Not together">
              <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
                {circuit.not_together.slice(0, 8).map((set) => (
                  <Box component="li" key={set.loads.join(" ")} sx={{ display: "flex", gap: 1, py: 0.5 }}>
                    <Box sx={{ flex: 1 }}>
                      {set.words}
                      <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>{meets(set.hours_a_year)}</Box>
                    </Box>
                    <b>
                      {amps(set.amps)} of {set.of} A
                    </b>
                  </Box>
                ))}
              </Box>
            </Block>
          )}
          {(circuit.notes.length > 0 || circuit.drop != null) && (
            <Block title="Rules that speak of it">
              {circuit.notes.map((note) => (
                <Typography key={note.words} sx={{ mb: 1 }}>
                  {note.words}{" "}
                  <Box component="span" sx={{ color: "text.secondary" }}>
                    {note.source}
                  </Box>
                </Typography>
              ))}
              {circuit.drop != null && (
                <Typography>
                  {circuit.drop.volts.toFixed(1)} V lost on the way to {circuit.drop.to} at {amps(circuit.drop.at_amps)}{" "}
                  A, {circuit.drop.percent.toFixed(1)} %, over {(circuit.drop.run_mm / 1000).toFixed(0)} m by the plan.{" "}
                  <Box component="span" sx={{ color: "text.secondary" }}>
                    3 % on a branch is recommended (NEC 210.19, informational note, from memory).
                  </Box>
                </Typography>
              )}
            </Block>
          )}
          <OrderOfPoints breaker={circuit.breaker} />
        </Stack>
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 3, maxWidth: 720 }}>
        {amps(circuit.busiest)} A in its busiest hour, {circuit.busiest_hour}:00 to {circuit.busiest_hour + 1}:00.
        Today&rsquo;s rules; local codes and licensed practice come first. A breaker that trips is never replaced by a
        larger one: the wire would burn first.
      </Typography>
      {readLoad && <ReadLoad home={home} load={readLoad} onClose={() => setRead(null)} />}
      {read === "circuit" && (
        <ReadCircuit home={home} circuit={circuit} running={ticked} onClose={() => setRead(null)} />
      )}
      {read === "heat" && <SeeHeat home={home} circuit={circuit} running={ticked} onClose={() => setRead(null)} />}
      {read === "volts" && (
        <ReadBreakerVolts home={home} circuit={circuit} running={ticked} onClose={() => setRead(null)} />
      )}
      {edited !== null && (
        <EditLoad
          home={home}
          load={circuit.loads.find((load) => load.load === edited)}
          others={circuit.loads.filter((load) => load.load !== edited)}
          onClose={() => setEdited(null)}
        />
      )}
    </Box>
  );
}

/** How often loads meet, if each runs by itself. */
function meets(hours: number): string {
  if (hours >= 1) return `meet about ${Math.round(hours)} h a year, if each runs by itself`;
  return "seldom meet, if each runs by itself";
}

interface RowProps {
  load: LoadLine;
  ticked: boolean;
  onTick: () => void;
  onEdit: () => void;
  onRead: () => void;
  onMove: () => void;
}

function LoadRow({ load, ticked, onTick, onEdit, onRead, onMove }: RowProps) {
  const count = load.count === 1 ? "" : `${load.count} × `;
  return (
    <Box
      component="li"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 0.5,
        borderBottom: `1px solid ${tone("rule")}`,
        flexWrap: "wrap",
      }}
    >
      <Checkbox
        checked={ticked}
        onChange={onTick}
        slotProps={{ input: { "aria-label": `${load.name} runs` } }}
        sx={{ ml: -1 }}
      />
      <Box sx={{ flex: 1, minWidth: 150, py: 0.5 }}>
        {count}
        {load.name}
        <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
          {load.place}; {load.source}
          {load.continuous ? "; 3 hours or more" : ""}
        </Box>
      </Box>
      <Box sx={{ textAlign: "right" }}>
        <b>{amps(load.amps)} A</b>
        {load.high - load.low > 0.15 && (
          <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
            {amps(load.low)} to {amps(load.high)}
          </Box>
        )}
      </Box>
      <Stack direction="row">
        <Button color="inherit" onClick={onRead} aria-label={`Read what ${load.name} takes`}>
          Read
        </Button>
        <Button color="inherit" onClick={onMove} aria-label={`Move ${load.name} to another circuit`}>
          Move
        </Button>
        <Button color="inherit" onClick={onEdit} aria-label={`Change ${load.name}`}>
          Change
        </Button>
      </Stack>
    </Box>
  );
}

/** Where a load could be plugged in instead, and what that changes. */
function MovesBlock({ home, load }: { home: string; load: string }) {
  const moves = useLoadMoves(home, load);
  return (
    <Loaded query={moves} what="other circuits">
      {(data) => (
        <Block title={`Without the ${data.name}`}>
          <Typography sx={{ mb: 1 }}>
            {amps(data.expected_without)} A would be expected here, {Math.round(data.percent_without)} % of its limit.
          </Typography>
          {data.to.length === 0 ? (
            <Typography>No other circuit with proven points takes it.</Typography>
          ) : (
            <Box component="ul" aria-label="Where it could go" sx={{ listStyle: "none", m: 0, p: 0 }}>
              {data.to.slice(0, 6).map((to) => (
                <Box component="li" key={to.breaker} sx={{ display: "flex", gap: 1, py: 0.5, alignItems: "baseline" }}>
                  <Tag text={to.number} />
                  <Box sx={{ flex: 1 }}>
                    {to.about}
                    {to.not_with.length > 0 && (
                      <Typography variant="body2" color="text.secondary">
                        not together there with: {to.not_with.join("; or ")}
                      </Typography>
                    )}
                  </Box>
                  <Box sx={{ whiteSpace: "nowrap" }}>
                    {Math.round(to.percent_now)} → <b>{Math.round(to.percent_then)} %</b>
                  </Box>
                </Box>
              ))}
            </Box>
          )}
          <Button
            variant="outlined"
            component={Link}
            to={`/h/${home}/work?${new URLSearchParams({ wish: `own circuit for the ${data.name}` }).toString()}`}
            sx={{ mt: 1 }}
          >
            Find ways to a circuit of its own
          </Button>
        </Block>
      )}
    </Loaded>
  );
}

/** The breaker in its last thermal picture. */
function HeatBlock({ home, heat }: { home: string; heat: HeatDiagnosis }) {
  return (
    <Block title="The breaker in a thermal picture" loud={heat.degree === "fault" || heat.degree === "at_once"}>
      <Typography data-testid="heat" sx={{ fontWeight: 700 }}>
        {heat.words}
      </Typography>
      <Typography sx={{ mt: 0.5 }}>{heat.next}</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
        {dateOf(heat.at)}, {heat.by}
        {heat.running.length > 0 ? `, with ${heat.running.join(", ")} on` : ""}.
      </Typography>
      {heat.photo != null && (
        <Box
          component="img"
          src={`/api/homes/${home}/photos/${heat.photo}`}
          alt={`Thermal picture, ${dateOf(heat.at)}`}
          sx={{ mt: 1, maxWidth: "100%", maxHeight: 220, border: `1px solid ${tone("rule")}` }}
        />
      )}
    </Block>
  );
}
