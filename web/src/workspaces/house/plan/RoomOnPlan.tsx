import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, Plan, PlanFloor, PlanRoom } from "../../../api/client";
import { newId } from "../../../api/record";
import { useAct } from "../../../app/useAct";
import { Block } from "../../../parts/Block";
import { Choice } from "../../../parts/Choice";
import { RoomWalls } from "./RoomWalls";
import { useWish } from "./useWish";

interface Props {
  home: HomeOverview;
  plan: Plan;
  floor: PlanFloor;
  room: PlanRoom;
}

/** A drawn room: doors to its neighbors, stairs, its points, its place. */
export function RoomOnPlan({ home, plan, floor, room }: Props) {
  const wish = useWish(home.id);
  const act = useAct(home.id);
  const [walls, setWalls] = useState(false);
  const points = home.points.filter((p) => p.room === room.room);
  const bare = points.filter((p) => plan.not_placed.includes(p.id));
  const nameOf = (id: string) => home.rooms.find((r) => r.id === id)?.name ?? "outdoors";
  const elsewhere = plan.floors
    .filter((f) => f.name !== floor.name)
    .flatMap((f) => f.rooms.map((r) => ({ room: r, up: f.level > floor.level, floor: f.name })));
  const doors = floor.openings.filter((o) => o.room === room.room || o.to === room.room);
  const stairs = floor.stairs.filter((s) => s.room === room.room);
  const climb = (other: string) => {
    const target = elsewhere.find((e) => e.room.room === other);
    if (!target) return;
    const [lower, upper] = target.up ? [room.room, other] : [other, room.room];
    void wish({ wish: "stairs", stairs: newId(), lower, upper });
  };
  return (
    <Block title={room.name}>
      <Stack spacing={1.5}>
        <Typography color="text.secondary" data-testid="room-facts">
          {room.size} · {room.area_m2.toFixed(1)} m² · {points.length === 1 ? "1 point" : `${points.length} points`}
        </Typography>
        {bare.length > 0 && (
          <Button variant="contained" onClick={() => void wish({ wish: "spread_points", room: room.room })}>
            {bare.length === 1 ? "Place 1 point roughly" : `Place ${bare.length} points roughly`}
          </Button>
        )}
        {room.neighbors.some((n) => !n.way) && (
          <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
            {room.neighbors
              .filter((n) => !n.way)
              .map((n) => (
                <Button
                  key={n.room}
                  variant="outlined"
                  onClick={() => void wish({ wish: "door", opening: newId(), room: room.room, to: n.room, width: 800 })}
                >
                  Door to {nameOf(n.room)}
                </Button>
              ))}
          </Stack>
        )}
        {elsewhere.length > 0 && (
          <Choice
            label="Stairs to"
            value=""
            options={[
              ["", "choose a room of another floor"],
              ...elsewhere.map((e) => [e.room.room, `${e.room.name}, ${e.floor}`] as const),
            ]}
            onChange={climb}
          />
        )}
        {(doors.length > 0 || stairs.length > 0) && (
          <Stack component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {doors.map((door) => (
              <Stack
                key={door.opening}
                component="li"
                direction="row"
                sx={{ alignItems: "center", justifyContent: "space-between" }}
              >
                <span>
                  {door.kind === "window" ? "Window" : door.kind === "door" ? "Door" : "Passage"}
                  {door.kind !== "window" &&
                    ` to ${door.to == null ? "outdoors" : nameOf(door.to === room.room ? door.room : door.to)}`}
                  , {door.width}
                </span>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() =>
                    void act([{ kind: "opening_removed", opening: door.opening }], "Taken out of the plan")
                  }
                >
                  Take out
                </Button>
              </Stack>
            ))}
            {stairs.map((s) => (
              <Stack
                key={s.stairs}
                component="li"
                direction="row"
                sx={{ alignItems: "center", justifyContent: "space-between" }}
              >
                <span>
                  Stairs {s.up ? "up" : "down"} to {nameOf(s.to)}
                </span>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() =>
                    void act([{ kind: "stairs_removed", stairs: s.stairs }], "Stairs taken out of the plan")
                  }
                >
                  Take out
                </Button>
              </Stack>
            ))}
          </Stack>
        )}
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
          <Button variant="outlined" onClick={() => void wish({ wish: "turn_room", room: room.room })}>
            Turn it
          </Button>
          <Button variant="outlined" onClick={() => setWalls(!walls)} aria-expanded={walls}>
            Its walls
          </Button>
          <Button
            color="error"
            onClick={() =>
              void act([{ kind: "room_drawn", room: room.room, corners: [] }], `${room.name} is no longer drawn`)
            }
          >
            Take off the plan
          </Button>
        </Stack>
        {walls && <RoomWalls room={room} />}
        <Typography variant="body2" color="text.secondary">
          Drag the room to move it, or hold Shift and use the arrows; near edges snap. To measure it again, type its
          name and new size.
        </Typography>
      </Stack>
    </Block>
  );
}
