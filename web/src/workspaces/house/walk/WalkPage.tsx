import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { HomeOverview, RoomWalk, WalkPoint } from "../../../api/client";
import { useRoomWalk } from "../../../api/queries";
import { tone } from "../../../app/theme";
import { useThisHome } from "../../../app/useThisHome";
import { Block } from "../../../parts/Block";
import { Choice } from "../../../parts/Choice";
import { Empty } from "../../../parts/Empty";
import { hidden } from "../../../parts/hidden";
import { EvidenceDialog } from "../../../app/EvidenceDialog";
import { Loaded } from "../../../parts/Loaded";
import { PointLine } from "../../../parts/PointLine";
import { when } from "../../../parts/when";
import { AddPoints } from "../AddPoints";
import { HouseTabs } from "../HouseTabs";

/** The room I am in: its points in walking order, the last look at each, and where to go next. */
export function WalkPage() {
  const home = useThisHome();
  const { room } = useParams();
  const here = home.rooms.find((r) => r.id === room) ?? home.rooms[0];
  const walk = useRoomWalk(home.id, here?.id);
  return (
    <Box sx={{ maxWidth: 640 }}>
      <h1 style={hidden}>Walk</h1>
      <HouseTabs home={home.id} shown="walk" />
      {here ? (
        <Loaded query={walk} what="room">
          {(data: RoomWalk) => <OneRoom key={here.id} home={home} walk={data} />}
        </Loaded>
      ) : (
        <Empty title="Which rooms are there?" words="Draw or list the rooms first; then walk through them here." />
      )}
    </Box>
  );
}

function OneRoom({ home, walk }: { home: HomeOverview; walk: RoomWalk }) {
  const navigate = useNavigate();
  const [adding, setAdding] = useState(false);
  const [evidence, setEvidence] = useState<string | null>(null);
  const go = (room: string) => void navigate(`/h/${home.id}/house/walk/${room}`);
  const room = home.rooms.find((r) => r.id === walk.room);
  return (
    <Stack spacing={2}>
      <Choice
        label="I am in"
        value={walk.room}
        options={home.rooms.map((r) => [r.id, `${r.name}${r.floor ? `, ${r.floor}` : ""}`] as const)}
        onChange={go}
      />
      <Block title={`${walk.name}: ${walk.points.length === 1 ? "1 point" : `${walk.points.length} points`}`}>
        {walk.points.length === 0 && (
          <Typography color="text.secondary">Nothing is entered here yet. Add what you see.</Typography>
        )}
        <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }} data-testid="walk">
          {walk.points.map((step) => {
            const point = home.points.find((p) => p.id === step.point);
            return (
              point && (
                <PointLine
                  key={step.point}
                  point={point}
                  home={home}
                  withRoom={false}
                  onOpen={() => setEvidence(step.point)}
                >
                  <Typography variant="body2" color="text.secondary" sx={{ mt: -0.8, pb: 0.8 }}>
                    {lastWords(step)}
                  </Typography>
                </PointLine>
              )
            );
          })}
        </Box>
        <Button variant="outlined" onClick={() => setAdding(!adding)} aria-expanded={adding} sx={{ mt: 1.5 }}>
          {adding ? "Nothing is missing" : "A point is missing"}
        </Button>
      </Block>
      {adding && room && <AddPoints home={home} room={room} />}
      <Block title="Next">
        <Stack spacing={1}>
          {walk.next.slice(0, 5).map((next, n) => (
            <Button
              key={next.room}
              variant="outlined"
              onClick={() => go(next.room)}
              sx={{
                minHeight: 56,
                justifyContent: "space-between",
                borderColor: n === 0 ? tone("pine") : undefined,
              }}
            >
              <span>{next.name}</span>
              <Box component="span" sx={{ fontWeight: 400, color: "text.secondary" }}>
                {Math.max(1, Math.round(next.seconds))} s
                {next.without_number > 0 && ` · ${next.without_number} without a circuit`}
              </Box>
            </Button>
          ))}
        </Stack>
      </Block>
      {evidence !== null && <EvidenceDialog home={home} point={evidence} onClose={() => setEvidence(null)} />}
    </Stack>
  );
}

function lastWords(step: WalkPoint): string {
  if (!step.last) return "Nobody has looked yet.";
  const { seen, off, at, by } = step.last;
  const under = off.length === 0 ? "everything on" : `${off.join(", ")} off`;
  return `Last seen ${seen} with ${under}, ${when(at)}, ${by}`;
}
