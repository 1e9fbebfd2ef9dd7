import Box from "@mui/material/Box";
import type { PlanRoom } from "../../../api/client";

/** The walls of a room, to be held against the tape. */
export function RoomWalls({ room }: { room: PlanRoom }) {
  return (
    <Box component="ol" sx={{ m: 0, pl: 3 }} aria-label={`Walls of ${room.name}`}>
      {room.walls.map((wall, n) => (
        <li key={n}>
          {sideOf(wall.to.x - wall.from.x, wall.to.y - wall.from.y)}, {wall.length}
        </li>
      ))}
    </Box>
  );
}

/** Walls go clockwise round the room, and up on the sheet is called north. */
function sideOf(dx: number, dy: number): string {
  if (Math.abs(dx) >= Math.abs(dy)) return dx >= 0 ? "north wall" : "south wall";
  return dy >= 0 ? "east wall" : "west wall";
}
