import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { CircuitLoads, LegsView, LoadsView, PanelView } from "../../api/client";
import { useLoads } from "../../api/queries";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { LegBars } from "../../drawing/LegBars";
import { LevelMoves } from "../../drawing/LevelMoves";
import { LoadTrack, TrackKey } from "../../drawing/LoadTrack";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Loaded } from "../../parts/Loaded";
import { amps, counted } from "../../parts/words";
import { ReadVolts } from "./read/ReadVolts";
import { Supply } from "./Supply";

const ORDERS = [
  ["nearest", "Nearest its limit first"],
  ["lightest", "Lightest first, for whoever wants to combine two"],
] as const;
type Order = (typeof ORDERS)[number][0];

/** What every circuit carries, on one scale. */
export function LoadsPage() {
  const home = useThisHome();
  const loads = useLoads(home.id);
  return (
    <Loaded query={loads} what="loads">
      {(view: LoadsView) => <Ranked home={home.id} panels={home.panels} view={view} />}
    </Loaded>
  );
}

function Ranked({ home, panels, view }: { home: string; panels: readonly PanelView[]; view: LoadsView }) {
  const [order, setOrder] = useState<Order>("nearest");
  const [reads, setReads] = useState(false);
  const light = view.lightest.flatMap((id) => view.circuits.filter((circuit) => circuit.breaker === id));
  const shown = order === "nearest" ? view.circuits : light;
  const entered = view.circuits.some((circuit) => circuit.stands !== "nothing") || view.elsewhere.length > 0;
  return (
    <>
      <Typography variant="h1">{view.title}</Typography>
      {view.supply != null && <Supply home={home} supply={view.supply} />}
      {!entered && (
        <Typography sx={{ maxWidth: 640, mt: 1 }}>
          Say what is plugged in or connected at each point. Then each circuit shows what it comes to, against its
          breaker and its wire.
        </Typography>
      )}
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap", alignItems: "center" }}>
        <Button variant="contained" component={Link} to={`/h/${home}/loads/enter`}>
          Enter what is where
        </Button>
        <Button variant="outlined" component={Link} to={`/h/${home}/loads/service`}>
          Service calculation
        </Button>
        <Button variant="outlined" component={Link} to={`/h/${home}/loads/survey`}>
          Survey
        </Button>
        <Button variant="outlined" component={Link} to={`/h/${home}/loads/usage`}>
          Usage data
        </Button>
        <Button variant="outlined" onClick={() => setReads(true)}>
          Volts at an outlet
        </Button>
        {reads && <ReadVolts home={home} point={view.supply?.read_next ?? ""} onClose={() => setReads(false)} />}
        {entered && (
          <Box sx={{ minWidth: 280, display: "grid" }}>
            <Choice label="Order" value={order} options={ORDERS} onChange={setOrder} />
          </Box>
        )}
      </Stack>
      <Box sx={{ display: "grid", gap: 4, gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 300px" } }}>
        <Box>
          {shown.length > 0 && (
            <>
              <TrackKey />
              <Head />
            </>
          )}
          <Box component="ul" aria-label="Circuits" data-testid="circuits" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {shown.map((circuit) => (
              <Row key={circuit.breaker} home={home} circuit={circuit} />
            ))}
          </Box>
          {view.circuits.length === 0 && <Typography>No breaker is entered yet on the Panel screen.</Typography>}
          {order === "lightest" && shown.length === 0 && (
            <Typography sx={{ mt: 1 }}>
              No circuit with loads entered is light, alone on its neutral and on one pole.
            </Typography>
          )}
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1.5, maxWidth: 720 }}>
            Expected is what one hour in a hundred exceeds, and never less than the largest load. It plans; it proves
            nothing: people cook at one time. Percent is of the smaller of breaker and wire.
          </Typography>
          <MovesOnPosts legs={view.legs} panels={panels} />
        </Box>
        <Stack spacing={2}>
          <NotTogetherBlock view={view} />
          <LegsBlock legs={view.legs} />
          {view.elsewhere.length > 0 && (
            <Block title="Not on a known circuit yet">
              <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
                {view.elsewhere.map((load) => (
                  <Box component="li" key={load.load} sx={{ display: "flex", py: 0.4, gap: 1 }}>
                    <Box sx={{ flex: 1 }}>
                      {load.name}
                      <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>{load.place}</Box>
                    </Box>
                    <Box sx={{ fontWeight: 700, whiteSpace: "nowrap" }}>{amps(load.amps)} A</Box>
                  </Box>
                ))}
              </Box>
              <Button component={Link} to={`/h/${home}/trace`} variant="outlined" sx={{ mt: 1 }}>
                Go on with the trace
              </Button>
            </Block>
          )}
        </Stack>
      </Box>
    </>
  );
}

const COLUMNS = "64px minmax(0, 230px) minmax(0, 1fr) 74px 74px 74px";

/** What the columns hold; on a phone each row says it itself. */
function Head() {
  const right = { textAlign: "right" } as const;
  return (
    <Box
      aria-hidden
      sx={{
        display: { xs: "none", md: "grid" },
        gridTemplateColumns: COLUMNS,
        columnGap: 1.5,
        alignItems: "end",
        fontSize: "0.85rem",
        pb: 0.5,
      }}
    >
      <Box />
      <Box />
      <Box sx={{ position: "relative", height: 20 }}>
        <Box sx={{ position: "absolute", left: "40%", transform: "translateX(-100%)", pr: 0.5, fontWeight: 700 }}>
          80 %
        </Box>
        <Box sx={{ position: "absolute", left: "50%", pl: 0.5, fontWeight: 700 }}>limit</Box>
        <Box sx={{ position: "absolute", right: 0 }}>200 %</Box>
      </Box>
      <Box sx={{ ...right, fontWeight: 700 }}>expected</Box>
      <Box sx={right}>all on at once</Box>
      <Box sx={right}>measured</Box>
    </Box>
  );
}

/** A feeder is neither proven nor claimed: it is described. */
function kindOf(circuit: CircuitLoads) {
  if (circuit.feeds != null) return "plain";
  if (circuit.stands === "nothing") return "open";
  return circuit.only_claimed ? "likely" : "proven";
}

function Row({ home, circuit }: { home: string; circuit: CircuitLoads }) {
  const nothing = circuit.stands === "nothing";
  const read = circuit.measured == null ? "–" : amps(circuit.measured.amps);
  return (
    <Box
      component="li"
      data-number={circuit.number}
      data-stands={circuit.stands}
      sx={{ borderTop: `1px solid ${tone("rule")}` }}
    >
      <Box
        component={Link}
        to={`/h/${home}/loads/circuit/${circuit.breaker}`}
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "64px minmax(0, 1fr) auto", md: COLUMNS },
          columnGap: 1.5,
          rowGap: 0.5,
          alignItems: "center",
          minHeight: 44,
          py: { xs: 1, md: 0.4 },
          color: nothing ? "text.secondary" : "inherit",
          textDecoration: "none",
          "&:hover": { bgcolor: tone("card") },
        }}
      >
        <Tag text={circuit.number} kind={kindOf(circuit)} />
        <Box
          sx={{
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
            fontStyle: circuit.only_claimed && circuit.feeds == null ? "italic" : "normal",
          }}
        >
          {circuit.feeds ?? (circuit.about === "" ? "nothing found on it yet" : circuit.about)}
        </Box>
        <Box sx={{ gridColumn: { xs: "1 / -1", md: "auto" }, gridRow: { xs: 2, md: "auto" } }}>
          {nothing ? (
            <Box sx={{ fontSize: "0.85rem", display: { xs: "none", md: "block" } }}>{circuit.sentence}</Box>
          ) : (
            <LoadTrack circuit={circuit} />
          )}
        </Box>
        <Box sx={{ textAlign: "right", fontWeight: 700 }}>
          {nothing ? "–" : amps(circuit.expected)}
          {circuit.stands === "too_close" && (
            <Box sx={{ fontSize: "0.85rem", fontWeight: 400, lineHeight: 1.1 }}>too close to call</Box>
          )}
          <Box component="span" sx={{ display: { md: "none" } }}>
            {nothing ? "" : ` of ${amps(circuit.limit)} A`}
          </Box>
        </Box>
        <Box sx={{ textAlign: "right", color: "text.secondary", display: { xs: "none", md: "block" } }}>
          {nothing ? "–" : amps(circuit.connected)}
        </Box>
        <Box sx={{ textAlign: "right", color: "text.secondary", display: { xs: "none", md: "block" } }}>{read}</Box>
      </Box>
    </Box>
  );
}

/** What each leg carries, and whether it is worth moving breakers. */
function LegsBlock({ legs }: { legs: LegsView }) {
  if (legs.panels.length === 0) return null;
  return (
    <Block title="Legs, as expected">
      <Box data-testid="legs">
        {legs.panels.map((panel) => (
          <Box key={panel.panel} sx={{ mb: 2 }}>
            <b>{panel.name}</b>
            <LegBars legs={panel} />
            <Typography variant="body2">
              {panel.sentence}{" "}
              {panel.heavier[0] !== panel.heavier[1] &&
                `The heavier leg is between ${amps(panel.heavier[0] ?? 0)} and ${amps(panel.heavier[1] ?? 0)} A. `}
              A new 120 V load belongs on leg {panel.new_load_on}.
            </Typography>
          </Box>
        ))}
        {legs.not_counted > 0 && (
          <Typography variant="body2" sx={{ mb: 1 }}>
            {counted(legs.not_counted, "load")} not on a known circuit yet: on a leg, too, and not counted here.
          </Typography>
        )}
        {legs.advice != null && (
          <Typography sx={{ fontWeight: 700 }} data-testid="advice">
            {legs.advice.words}
          </Typography>
        )}
        {legs.advice != null && legs.advice.moves.length > 0 && (
          <Box component="ul" aria-label="Moves" sx={{ my: 1, pl: 2.5 }}>
            {legs.advice.moves.map((move) => (
              <li key={move}>{move}</li>
            ))}
          </Box>
        )}
      </Box>
    </Block>
  );
}

/** Which breakers go where, on the post of each panel. */
function MovesOnPosts({ legs, panels }: { legs: LegsView; panels: readonly PanelView[] }) {
  const marks = legs.advice?.marks ?? [];
  const moved = panels.filter((one) => marks.some((mark) => mark.panel === one.panel.id));
  if (moved.length === 0) return null;
  return (
    <Box sx={{ mt: 3 }} data-testid="level-moves">
      <Typography variant="h2">What would go where, to level the legs</Typography>
      {moved.map((one) => (
        <Box
          key={one.panel.id}
          sx={{ my: 1.5, maxWidth: 520, overflowX: "auto" }}
          tabIndex={0}
          role="region"
          aria-label={`Moves in the ${one.panel.name}`}
        >
          <LevelMoves view={one} marks={marks.filter((mark) => mark.panel === one.panel.id)} />
        </Box>
      ))}
    </Box>
  );
}

function NotTogetherBlock({ view }: { view: LoadsView }) {
  if (view.not_together.length === 0) return null;
  return (
    <Block title="Not together">
      <Box component="ul" aria-label="What may not run together" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {view.not_together.map((set) => (
          <Box
            component="li"
            key={set.loads.join(" ")}
            sx={{ display: "flex", gap: 1, py: 0.6, alignItems: "baseline" }}
          >
            <Tag text={set.number} />
            <Box sx={{ flex: 1 }}>{set.words}</Box>
            <Box sx={{ fontWeight: 700, whiteSpace: "nowrap" }}>
              {amps(set.amps)} of {set.of} A
            </Box>
          </Box>
        ))}
      </Box>
    </Block>
  );
}
