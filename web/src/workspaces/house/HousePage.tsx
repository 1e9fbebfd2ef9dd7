import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState, type SyntheticEvent } from "react";
import { newId, useRecord } from "../../api/record";
import { tone } from "../../app/theme";
import { useNotice } from "../../app/useNotice";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Empty } from "../../parts/Empty";
import { counted } from "../../parts/words";
import { HouseTabs } from "./HouseTabs";
import { RoomPane } from "./RoomPane";

/** What is out there: rooms and their points, entered as fast lists. */
export function HousePage() {
  const home = useThisHome();
  const record = useRecord(home.id);
  const say = useNotice();
  const [chosen, setChosen] = useState<string | null>(null);
  const [name, setName] = useState("");
  const room = home.rooms.find((r) => r.id === chosen) ?? home.rooms[0];
  const add = async (event: SyntheticEvent) => {
    event.preventDefault();
    const id = newId();
    try {
      await record([{ kind: "room_placed", room: id, name }]);
      setName("");
      setChosen(id);
    } catch (refused) {
      say.problem(refused);
    }
  };
  const without = home.points.filter((p) => p.known.verdict !== "proven").length;
  return (
    <Box
      sx={{ display: "grid", columnGap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "320px minmax(0, 1fr)" } }}
    >
      <Box sx={{ gridColumn: "1 / -1" }}>
        <HouseTabs home={home.id} shown="list" />
      </Box>
      <Box>
        <Typography variant="h1">Rooms and points</Typography>
        <Typography color="text.secondary" sx={{ mb: 2 }}>
          {counted(home.rooms.length, "room")} · {counted(home.points.length, "point")} · {without} not proven
        </Typography>
        <Stack component="form" direction="row" spacing={1} onSubmit={(event) => void add(event)} sx={{ mb: 2 }}>
          <TextField
            label="New room"
            value={name}
            onChange={(e) => setName(e.target.value)}
            fullWidth
            size="small"
            required
            autoComplete="off"
          />
          <Button type="submit" variant={home.rooms.length === 0 ? "contained" : "outlined"}>
            Add
          </Button>
        </Stack>
        <Box
          component="nav"
          aria-label="Rooms"
          sx={{ display: { xs: "flex", md: "block" }, overflowX: "auto", gap: 1, pb: { xs: 1, md: 0 } }}
        >
          {home.rooms.map((r) => {
            const points = home.points.filter((p) => p.room === r.id);
            const proven = points.filter((p) => p.known.verdict === "proven").length;
            const current = r.id === room?.id;
            return (
              <Box
                key={r.id}
                ref={current ? intoSight : undefined}
                component="button"
                type="button"
                aria-current={current ? "true" : undefined}
                onClick={() => setChosen(r.id)}
                sx={{
                  font: "inherit",
                  fontWeight: 700,
                  color: "inherit",
                  cursor: "pointer",
                  textAlign: "left",
                  whiteSpace: "nowrap",
                  minHeight: 44,
                  width: { md: "100%" },
                  px: 1.5,
                  bgcolor: current ? "background.paper" : "transparent",
                  border: `1px solid ${tone("rule")}`,
                  borderLeft: current ? `5px solid ${tone("blaze")}` : `1px solid ${tone("rule")}`,
                  display: "flex",
                  gap: 2,
                  alignItems: "center",
                  justifyContent: "space-between",
                }}
              >
                <span>{r.name}</span>
                <Box component="span" sx={{ color: "text.secondary", fontWeight: 400, fontSize: "0.85rem" }}>
                  {proven} of {points.length}
                </Box>
              </Box>
            );
          })}
        </Box>
      </Box>
      {room ? (
        <RoomPane key={room.id} home={home} room={room} />
      ) : (
        <Block>
          <Empty
            title="Which rooms are there?"
            words="Name the first room at the left: Kitchen, Hall, Cellar. Then add its receptacles, lights, switches, appliances and alarms in a row."
          />
        </Block>
      )}
    </Box>
  );
}

/** The chosen room of a row that scrolls sideways. */
const intoSight = (chip: HTMLElement | null) => chip?.scrollIntoView({ block: "nearest", inline: "center" });
