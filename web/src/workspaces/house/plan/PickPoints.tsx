import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, KnownPoint } from "../../../api/client";
import { useAct } from "../../../app/useAct";

interface Props {
  home: HomeOverview;
  from: KnownPoint;
  which: "switch" | "gfci";
  onClose: () => void;
}

/** Which points a switch switches, or a GFCI device protects: its own room first. */
export function PickPoints({ home, from, which, onClose }: Props) {
  const act = useAct(home.id);
  const before = which === "switch" ? (home.controls[from.id] ?? []) : (home.protects[from.id] ?? []);
  const [chosen, setChosen] = useState<string[]>(before);
  const fits = (p: KnownPoint) =>
    p.id !== from.id &&
    (which === "switch" ? ["light", "fan", "receptacle", "appliance"].includes(p.kind) : p.kind !== "switch");
  const rooms = [...home.rooms].sort((a, b) => Number(b.id === from.room) - Number(a.id === from.room));
  const keep = async () => {
    const fact =
      which === "switch"
        ? ({ kind: "switch_controls", switch: from.id, points: chosen } as const)
        : ({ kind: "gfci_protects", device: from.id, points: chosen } as const);
    if (await act([fact], "Kept")) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="pick-title">
      <DialogTitle id="pick-title">
        {which === "switch" ? `What ${from.name} switches` : `What ${from.name} protects downstream`}
      </DialogTitle>
      <DialogContent>
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          {which === "switch"
            ? "Two switches of one light make a three-way pair."
            : "Press its test button and see what goes dark; then reset it."}
        </Typography>
        {rooms.map((room) => {
          const points = home.points.filter((p) => p.room === room.id && fits(p));
          if (points.length === 0) return null;
          return (
            <Stack key={room.id} component="fieldset" sx={{ border: 0, p: 0, m: 0, mb: 1.5 }}>
              <Typography component="legend" variant="h3">
                {room.name}
              </Typography>
              {points.map((p) => (
                <FormControlLabel
                  key={p.id}
                  label={`${p.name}, ${p.kind.replace("_", " ")}`}
                  control={
                    <Checkbox
                      checked={chosen.includes(p.id)}
                      onChange={(e) =>
                        setChosen(e.target.checked ? [...chosen, p.id] : chosen.filter((id) => id !== p.id))
                      }
                    />
                  }
                />
              ))}
            </Stack>
          );
        })}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} color="inherit">
          Cancel
        </Button>
        <Button variant="contained" onClick={() => void keep()}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}
