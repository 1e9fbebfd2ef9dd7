import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { DrawingRead, HomeOverview, PlanFloor } from "../../../api/client";
import { readDrawing } from "../../../api/queries";
import { useAct } from "../../../app/useAct";
import { wordsOf } from "../../../app/useNotice";
import { PlanDrawing } from "../../../drawing/PlanDrawing";
import { Choice } from "../../../parts/Choice";
import { FileButton } from "../../../parts/form/FileButton";

const UNITS = [
  ["", "as the file says"],
  ["1", "millimeters"],
  ["10", "centimeters"],
  ["1000", "meters"],
  ["25.4", "inches"],
  ["304.8", "feet"],
] as const;
type Unit = (typeof UNITS)[number][0];

interface Props {
  home: HomeOverview;
  floor: PlanFloor;
  onClose: () => void;
}

/** Rooms and points from a drawing file, shown before anything is kept. */
export function DrawingDialog({ home, floor, onClose }: Props) {
  const act = useAct(home.id);
  const [file, setFile] = useState<Blob | null>(null);
  const [unit, setUnit] = useState<Unit>("");
  const [read, setRead] = useState<DrawingRead | null>(null);
  const [error, setError] = useState<string | null>(null);
  const load = async (next: Blob, as: Unit) => {
    setFile(next);
    setUnit(as);
    try {
      setRead(await readDrawing(home.id, floor.name, next, as === "" ? null : Number(as)));
      setError(null);
    } catch (refused) {
      setRead(null);
      setError(wordsOf(refused));
    }
  };
  const keep = async () => {
    if (read && (await act(read.facts, `${read.rooms} rooms and ${read.points} points drawn`))) onClose();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="drawing-title">
      <DialogTitle id="drawing-title">Rooms from a drawing</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          <Typography color="text.secondary">
            A DXF in text form. Closed polylines become rooms of {floor.name}, a text inside one its name; blocks named
            as in our own DXF become points. Nothing is kept before you say so.
          </Typography>
          <div>
            <FileButton
              words="Choose the drawing"
              label="Drawing"
              accept=".dxf"
              onFile={(chosen) => void load(chosen, unit)}
            />
          </div>
          {error !== null && (
            <Alert severity="error" variant="outlined" data-testid="drawing-error">
              {error}
            </Alert>
          )}
          {read && file && (
            <>
              <Typography data-testid="drawing-read">
                {read.rooms} rooms and {read.points} points, in {read.unit}.
              </Typography>
              <Choice
                label="Its unit"
                value={unit}
                options={UNITS}
                onChange={(as) => void load(file, as)}
                help="Check the sizes of the rooms: they show whether the unit is right."
              />
              {[...read.left_out, ...read.notes].map((words) => (
                <Typography key={words} color="text.secondary">
                  {words}
                </Typography>
              ))}
              <PlanDrawing
                plan={read}
                floor={read.preview}
                home={home.id}
                selected={null}
                onSelect={() => undefined}
                onTap={null}
                onDrag={null}
                zoom={0}
              />
            </>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} color="inherit">
          Cancel
        </Button>
        <Button variant="contained" disabled={!read} onClick={() => void keep()}>
          Draw these rooms
        </Button>
      </DialogActions>
    </Dialog>
  );
}
