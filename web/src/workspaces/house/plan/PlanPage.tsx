import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { HomeOverview, Plan, PlanFloor, PlanNow, Spot } from "../../../api/client";
import { useFind, usePlan } from "../../../api/queries";
import { newId } from "../../../api/record";
import { useThisHome } from "../../../app/useThisHome";
import { PlanDrawing, type PlanPlace } from "../../../drawing/PlanDrawing";
import { Block } from "../../../parts/Block";
import { Loaded } from "../../../parts/Loaded";
import { useKeys } from "../../../parts/useKeys";
import { counted, sentence } from "../../../parts/words";
import { HouseTabs } from "../HouseTabs";
import { PlanActs } from "./PlanActs";
import { PlanKey } from "./PlanKey";
import { Placing, type Tool } from "./Placing";
import { PointOnPlan } from "./PointOnPlan";
import { RoomOnPlan } from "./RoomOnPlan";
import { RoomTyping } from "./RoomTyping";
import { usePlacedMeanwhile } from "./usePlacedMeanwhile";
import { useWish } from "./useWish";

/** The house to scale, every point with its number. */
export function PlanPage() {
  const home = useThisHome();
  const plan = usePlan(home.id);
  return (
    <>
      <HouseTabs home={home.id} shown="plan" />
      <Loaded query={plan} what="plan">
        {(data: PlanNow) => <Floors home={home} plan={data} />}
      </Loaded>
    </>
  );
}

function Floors({ home, plan: known }: { home: HomeOverview; plan: PlanNow }) {
  const plan = usePlacedMeanwhile(home.id, known);
  const [query, setQuery] = useSearchParams();
  const selected: PlanPlace | null = query.get("at");
  const [fresh, setFresh] = useState<string | null>(null);
  const holds = (floor: PlanFloor) =>
    floor.points.some((p) => `p:${p.point}` === selected) || floor.rooms.some((r) => `r:${r.room}` === selected);
  const asked = query.get("floor");
  // The floor that holds what is selected, else the one asked for, else the ground floor.
  const floor =
    plan.floors.find(holds) ??
    plan.floors.find((f) => f.name === asked) ??
    plan.floors.find((f) => f.level === 0 && f.rooms.length > 0) ??
    plan.floors.find((f) => f.rooms.length > 0) ??
    plan.floors[0];
  const name = fresh ?? floor?.name ?? "ground floor";
  const shown = plan.floors.find((f) => f.name === name);
  const go = (floorName: string, place?: PlanPlace) => {
    setFresh(null);
    setQuery({ floor: floorName, ...(place !== undefined && { at: place }) }, { replace: true });
  };
  return (
    <OneFloor
      key={name}
      home={home}
      plan={plan}
      floor={shown ?? emptyFloor(name)}
      selected={selected}
      go={go}
      onNewFloor={setFresh}
    />
  );
}

const emptyFloor = (name: string): PlanFloor => ({
  name,
  level: 0,
  bounds: null,
  rooms: [],
  walls: [],
  openings: [],
  stairs: [],
  panels: [],
  points: [],
  backdrop: null,
  symbol_scale: 1,
  tag_height: 250,
  points_in_all: 0,
  without_number: 0,
});

interface Props {
  home: HomeOverview;
  plan: Plan;
  floor: PlanFloor;
  selected: PlanPlace | null;
  go: (floor: string, place?: PlanPlace) => void;
  onNewFloor: (name: string) => void;
}

function OneFloor({ home, plan, floor, selected, go, onNewFloor }: Props) {
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const wish = useWish(home.id);
  const [tool, setTool] = useState<Tool | null>(null);
  const [zoom, setZoom] = useState(1);
  const [last, setLast] = useState<string | null>(null);
  const pane = useRef<HTMLDivElement>(null);
  const point = home.points.find((p) => `p:${p.id}` === selected);
  const room = floor.rooms.find((r) => `r:${r.room}` === selected);
  const found = useFind(home.id, point ? point.name : "");
  const about = found.data?.find((f) => f.found === "point" && f.point === point?.id);
  const lit = new Set(about?.dark_with.map((d) => d.point));
  const select = (place: PlanPlace | null) => go(floor.name, place ?? undefined);
  const floorName = home.rooms.find((r) => r.id === point?.room)?.floor ?? floor.name;
  const chosen = point?.id;
  useEffect(() => {
    if (!wide && chosen !== undefined) pane.current?.scrollIntoView({ block: "nearest" });
  }, [wide, chosen]);
  useKeys({ Escape: () => setTool(null), n: () => step() });

  const step = () => {
    // Round through the points without a circuit, on whichever floor they are.
    const at = plan.without_number.findIndex((id) => `p:${id}` === selected);
    const next = plan.without_number[(at + 1) % Math.max(1, plan.without_number.length)];
    const its = home.rooms.find((r) => r.id === home.points.find((p) => p.id === next)?.room)?.floor;
    if (next !== undefined) go(its ?? floor.name, `p:${next}`);
  };
  const tap = (at: Spot) => {
    if (tool === null) return;
    if (tool.tool === "point")
      void wish({
        wish: "tap_point",
        point: newId(),
        floor: floor.name,
        at,
        point_kind: tool.what.kind,
        volts: tool.what.volts,
        details: tool.what.details,
        name: "",
      });
    else if (tool.tool === "opening")
      void wish({
        wish: "tap_opening",
        opening: newId(),
        floor: floor.name,
        at,
        opening_kind: tool.kind,
        width: tool.width,
      });
    else if (tool.tool === "panel")
      void wish({ wish: "tap_panel", panel: tool.panel, floor: floor.name, at }).then(() => setTool(null));
    else void wish({ wish: "move_point", point: tool.point, to: at }).then((done) => done && setTool(null));
  };
  const dragged = (place: PlanPlace, to: Spot) =>
    void wish(
      place.startsWith("p:")
        ? { wish: "move_point", point: place.slice(2), to }
        : { wish: "move_room", room: place.slice(2), to },
    );
  const drawn = floor.rooms.length > 0;
  const besideId = room?.room ?? last ?? floor.rooms[floor.rooms.length - 1]?.room;
  const beside = floor.rooms.find((r) => r.room === besideId) ?? floor.rooms[floor.rooms.length - 1];
  const unplaced = home.points.filter(
    (p) => plan.not_placed.includes(p.id) && floor.rooms.some((r) => r.room === p.room),
  );
  const notes = plan.notes.filter((note) => note.floor === floor.name);
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 320px" } }}>
      <Box>
        <Typography variant="h1">{sentence(floor.name)}</Typography>
        <Typography color="text.secondary" data-testid="floor-count">
          {counted(floor.rooms.length, "room")} · {counted(floor.points_in_all, "point")} · {floor.without_number}{" "}
          without a circuit
        </Typography>
        <PlanActs home={home} plan={plan} floor={floor} go={go} onNewFloor={onNewFloor} zoom={zoom} onZoom={setZoom} />
        {drawn || floor.backdrop ? (
          <>
            <Placing
              home={home}
              floor={floor}
              tool={tool}
              onTool={setTool}
              narrow={!wide}
              unplaced={unplaced.map((p) => p.id)}
            />
            <PlanDrawing
              plan={plan}
              floor={floor}
              home={home.id}
              selected={selected}
              onSelect={select}
              onTap={tool ? tap : null}
              onDrag={dragged}
              zoom={zoom}
              lit={lit}
            />
            {wide && <PlanKey plan={plan} floor={floor} />}
          </>
        ) : (
          <Typography sx={{ my: 2 }}>
            Nothing is drawn here yet. Type a room with its size at the {wide ? "right" : "bottom"}: Kitchen 4.2 x 3.6.
          </Typography>
        )}
      </Box>
      <Stack spacing={2}>
        {notes.map((note) => (
          <Block key={note.words} title="Look at this">
            <Typography data-testid="plan-note">{note.words}</Typography>
          </Block>
        ))}
        {point && floorName === floor.name && (
          <Box ref={pane}>
            <PointOnPlan
              key={point.id}
              home={home}
              point={point}
              found={about}
              placed={!plan.not_placed.includes(point.id)}
            />
          </Box>
        )}
        {room && <RoomOnPlan key={room.room} home={home} plan={plan} floor={floor} room={room} />}
        {plan.without_number.length > 0 && (
          <Block title="Points without a circuit">
            <Typography color="text.secondary" sx={{ mb: 1 }} data-testid="without-number">
              {plan.without_number.length} of {home.points.length} points are not proven on a circuit yet.
            </Typography>
            <Button variant="outlined" onClick={step}>
              Step through them
            </Button>
          </Block>
        )}
        <RoomTyping
          key={`typing-${beside?.room ?? ""}`}
          home={home}
          floor={floor.name}
          beside={beside && { id: beside.room, name: beside.name }}
          onAdded={(id) => {
            setLast(id);
            go(floor.name);
          }}
        />
        {!wide && <PlanKey plan={plan} floor={floor} />}
      </Stack>
    </Box>
  );
}
