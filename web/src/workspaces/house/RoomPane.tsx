import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, Room } from "../../api/client";
import { useRecord } from "../../api/record";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { AskFirst } from "../../parts/AskFirst";
import { Block } from "../../parts/Block";
import { EvidenceDialog } from "../../app/EvidenceDialog";
import { PointLine } from "../../parts/PointLine";
import { AddPoints } from "./AddPoints";
import { EditPoint } from "./EditPoint";

/** One room: its points, and adding more in a row. */
export function RoomPane({ home, room }: { home: HomeOverview; room: Room }) {
  const record = useRecord(home.id);
  const say = useNotice();
  const act = useAct(home.id);
  const [evidence, setEvidence] = useState<string | null>(null);
  const [editing, setEditing] = useState(false);
  const [name, setName] = useState(room.name);
  const points = home.points.filter((p) => p.room === room.id);
  return (
    <Stack spacing={2}>
      <AddPoints home={home} room={room} />
      <Block
        title={
          <Stack direction="row" spacing={1} sx={{ alignItems: "center", justifyContent: "space-between" }}>
            <span>
              {room.name}, {points.length === 1 ? "1 point" : `${points.length} points`}
            </span>
            <Button color="inherit" onClick={() => setEditing(!editing)} aria-pressed={editing}>
              {editing ? "Done editing" : "Edit"}
            </Button>
          </Stack>
        }
      >
        {editing && (
          <Stack direction="row" useFlexGap spacing={1} sx={{ mb: 2, flexWrap: "wrap" }}>
            <TextField label="Name of the room" size="small" value={name} onChange={(e) => setName(e.target.value)} />
            <Button
              variant="outlined"
              onClick={() =>
                void record([{ kind: "room_placed", room: room.id, name, floor: room.floor ?? null }]).catch(
                  say.problem,
                )
              }
            >
              Rename
            </Button>
            <AskFirst
              words="Remove room"
              question={`Remove ${room.name}?`}
              onYes={() => void act([{ kind: "room_removed", room: room.id }], `${room.name} is removed.`)}
            />
          </Stack>
        )}
        {points.length === 0 && (
          <Typography color="text.secondary">
            Nothing here yet. Add the first point above; Enter adds the next one.
          </Typography>
        )}
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }} data-testid="points">
          {points.map((point) =>
            editing ? (
              <EditPoint
                key={point.id}
                home={home.id}
                point={point}
                onSave={(fact) => record([fact])}
                onRemove={() => void act([{ kind: "point_removed", point: point.id }], `${point.name} is removed.`)}
              />
            ) : (
              <PointLine
                key={point.id}
                point={point}
                home={home}
                withRoom={false}
                onOpen={() => setEvidence(point.id)}
              />
            ),
          )}
        </Box>
      </Block>
      {evidence !== null && <EvidenceDialog home={home} point={evidence} onClose={() => setEvidence(null)} />}
    </Stack>
  );
}
