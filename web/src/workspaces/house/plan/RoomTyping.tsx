import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useRef, useState, type SyntheticEvent } from "react";
import type { HomeOverview, RoomSide, Wish } from "../../../api/client";
import { propose, useTypedRooms } from "../../../api/queries";
import { newId } from "../../../api/record";
import { useAct } from "../../../app/useAct";
import { useNotice } from "../../../app/useNotice";
import { Block } from "../../../parts/Block";

const SIDES: [RoomSide, string, string][] = [
  ["left", "←", "Left of it"],
  ["above", "↑", "Above it"],
  ["below", "↓", "Below it"],
  ["right", "→", "Right of it"],
];

interface Props {
  home: HomeOverview;
  floor: string;
  /** The room that the next one goes beside. */
  beside: { id: string; name: string } | undefined;
  onAdded: (room: string) => void;
}

/** A room in one line, and one tap for the side of its neighbor where it goes. */
export function RoomTyping({ home, floor, beside, onAdded }: Props) {
  const act = useAct(home.id);
  const say = useNotice();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const wish = (ids: string[], side: RoomSide | null): Extract<Wish, { wish: "type_rooms" }> => ({
    wish: "type_rooms",
    text,
    floor,
    beside: beside?.id ?? null,
    side,
    ids,
  });
  const deferred = useDeferredValue(text);
  const read = useTypedRooms(home.id, { ...wish(["preview"], "right"), text: deferred });
  const line = text.trim() === "" ? undefined : read.data?.lines[0];
  const add = async (side: RoomSide | null) => {
    const id = newId();
    try {
      const proposal = await propose(home.id, wish([id], side));
      const misread = proposal.lines.find((l) => l.misread)?.misread;
      if (misread || proposal.facts.length === 0) return;
      if (await act(proposal.facts, `${proposal.said} added`)) {
        setText("");
        const drawn = proposal.facts.find((fact) => fact.kind === "room_drawn");
        onAdded(drawn?.kind === "room_drawn" ? drawn.room : id);
      }
    } catch (refused) {
      say.problem(refused);
    }
    field.current?.focus();
  };
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    void add(beside ? "right" : null);
  };
  const sample = home.points.length > 0 || beside ? "Pantry 2.4 x 3.4" : "Kitchen 4.2 x 3.6";
  return (
    <Block title={beside ? `A room beside ${beside.name}` : `The first room on this floor: ${floor}`}>
      <Stack component="form" spacing={1.5} onSubmit={submit}>
        <TextField
          inputRef={field}
          label="Room and size"
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder={sample}
          autoComplete="off"
          size="small"
          error={line?.misread != null}
          helperText={line?.misread?.wrong ?? line?.said ?? "As the tape reads: 4.2 x 3.6, or 13'9\" x 11'10\"."}
          slotProps={{ formHelperText: { "data-testid": "room-read" } as object }}
        />
        {beside ? (
          <Box sx={{ display: "grid", gridTemplateColumns: "repeat(4, 1fr)", gap: 1 }}>
            {SIDES.map(([side, arrow, words]) => (
              <Button
                key={side}
                type={side === "right" ? "submit" : "button"}
                variant="outlined"
                aria-label={words}
                sx={{ minWidth: 0, minHeight: 56, fontSize: "1.4rem" }}
                onClick={side === "right" ? undefined : () => void add(side)}
              >
                {arrow}
              </Button>
            ))}
          </Box>
        ) : (
          <Button type="submit" variant="contained">
            Draw it
          </Button>
        )}
        <Typography variant="body2" color="text.secondary">
          {beside
            ? "The arrow says on which side it goes, and draws it there. An L: 4.2 x 3.6 less 1.2 x 0.8 top right."
            : "Inside measures. Rooms that are there already keep their points."}
        </Typography>
      </Stack>
    </Block>
  );
}
