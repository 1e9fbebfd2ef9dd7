import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useState } from "react";
import type { HomeOverview, Wish } from "../../../api/client";
import { propose, useTypedRooms } from "../../../api/queries";
import { newId } from "../../../api/record";
import { useAct } from "../../../app/useAct";
import { useNotice } from "../../../app/useNotice";
import { useKeptText } from "../../../parts/form/kept";
import { KeptNote } from "../../../parts/form/KeptNote";

const SAMPLE = "ground floor:\nKitchen 4.2 x 3.6\nPantry 2 x 3.6 right of Kitchen\nHall 6.2 x 1.5 below Kitchen";

/** Many rooms at one go, one a line, read as they are typed. */
export function RoomListDialog({ home, floor, onClose }: { home: HomeOverview; floor: string; onClose: () => void }) {
  const act = useAct(home.id);
  const say = useNotice();
  const [text, setText] = useKeptText(`rooms ${home.id}`);
  const [before] = useState(text !== "");
  const wish = (ids: string[]): Extract<Wish, { wish: "type_rooms" }> => ({
    wish: "type_rooms",
    text,
    floor,
    beside: null,
    side: null,
    ids,
  });
  const preview = Array.from({ length: 200 }, (_, n) => `preview-${n}`);
  const deferred = useDeferredValue(text);
  const read = useTypedRooms(home.id, { ...wish(preview), text: deferred });
  const lines = text.trim() === "" ? [] : (read.data?.lines ?? []);
  const good = lines.filter((line) => line.facts.length > 0).length;
  const keep = async () => {
    try {
      const proposal = await propose(home.id, wish(Array.from({ length: 200 }, newId)));
      const wrong = proposal.lines.filter((line) => line.misread).map((line) => line.text);
      if (proposal.facts.length > 0 && !(await act(proposal.facts, "Rooms drawn"))) return;
      // What was not understood stays in the field.
      setText(wrong.join("\n"));
      if (wrong.length === 0) onClose();
    } catch (refused) {
      say.problem(refused);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="rooms-title">
      <DialogTitle id="rooms-title">Rooms as a list</DialogTitle>
      <DialogContent>
        <KeptNote kept={before && text !== ""} onDiscard={() => setText("")} />
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          One room a line: its name, its size, and where it goes if that is not right of the one before it. A line that
          ends with a colon names a floor.
        </Typography>
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "minmax(0,1fr)", md: "1fr 1fr" } }}>
          <TextField
            label="The rooms"
            multiline
            minRows={9}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder={SAMPLE}
            slotProps={{ inputLabel: { shrink: true } }}
            sx={{ mt: 1 }}
          />
          <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }} data-testid="rooms-read">
            {lines.map((line, n) => (
              <Box component="li" key={n} sx={{ py: 0.5, color: line.misread ? "error.main" : "inherit" }}>
                {line.misread ? (
                  <>
                    <b>{line.misread.part || line.text}</b>: {line.misread.wrong}
                  </>
                ) : (
                  line.said
                )}
              </Box>
            ))}
          </Box>
        </Box>
      </DialogContent>
      <DialogActions>
        <Button
          color="inherit"
          onClick={() => {
            setText("");
            onClose();
          }}
        >
          Cancel
        </Button>
        <Button variant="contained" disabled={good === 0} onClick={() => void keep()}>
          {good === 1 ? "Draw 1 room" : `Draw ${good} rooms`}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
