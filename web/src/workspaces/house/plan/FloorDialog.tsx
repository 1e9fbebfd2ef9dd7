import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { HomeOverview } from "../../../api/client";
import { useAct } from "../../../app/useAct";
import { Choice } from "../../../parts/Choice";

const LEVELS = [
  ["2", "two above the ground floor"],
  ["1", "above the ground floor"],
  ["0", "on the ground"],
  ["-1", "below the ground floor"],
  ["-2", "two below the ground floor"],
] as const;
type Level = (typeof LEVELS)[number][0];

interface Props {
  home: HomeOverview;
  onClose: () => void;
  onKept: (name: string) => void;
}

/** Another floor: its name, and where it is in the order of floors. */
export function FloorDialog({ home, onClose, onKept }: Props) {
  const act = useAct(home.id);
  const [name, setName] = useState("");
  const [level, setLevel] = useState<Level>("1");
  const keep = async () => {
    if (await act([{ kind: "floor_placed", floor: name, level: Number(level) }], `${name}: type its first room`)) {
      onKept(name.trim());
      onClose();
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="floor-title">
      <DialogTitle id="floor-title">Another floor</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <TextField
            label="Name of the floor"
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder="loft"
          />
          <Choice label="Where it is" value={level} options={LEVELS} onChange={setLevel} />
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} color="inherit">
          Leave as it was
        </Button>
        <Button variant="contained" disabled={name.trim() === ""} onClick={() => void keep()}>
          Go to it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
