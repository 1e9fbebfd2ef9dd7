import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { HomeOverview, Panel } from "../../api/client";
import { newId, useRecord } from "../../api/record";
import { wordsOf } from "../../app/useNotice";

interface Props {
  home: HomeOverview;
  open: boolean;
  onClose: () => void;
}

export function PanelDialog(props: Props) {
  return (
    <Dialog open={props.open} onClose={props.onClose} fullWidth maxWidth="sm" aria-labelledby="panel-title">
      <DialogTitle id="panel-title">Describe the panel</DialogTitle>
      <PanelForm {...props} />
    </Dialog>
  );
}

function PanelForm({ home, onClose }: Props) {
  const record = useRecord(home.id);
  const before = home.post?.panel;
  const [name, setName] = useState(before?.name ?? "Main panel");
  const [place, setPlace] = useState(before?.place ?? "");
  const [spaces, setSpaces] = useState(String(before?.spaces ?? 24));
  const [numbering, setNumbering] = useState(before?.columns === "one" ? "one" : (before?.numbering ?? "odd_even"));
  const [service, setService] = useState<Panel["service"]>(before?.service ?? "split_phase");
  const [main, setMain] = useState(before?.main == null ? "" : String(before.main));
  const [width, setWidth] = useState(String(before?.card.width_mm ?? 130));
  const [height, setHeight] = useState(String(before?.card.height_mm ?? 210));
  const [error, setError] = useState<unknown>(null);
  const keep = async () => {
    const count = Number(spaces);
    if (!Number.isInteger(count) || count < 0 || count > 255) {
      setError(new Error("The number of spaces is a whole number from 2 to 84. Nothing was recorded."));
      return;
    }
    try {
      await record([
        {
          kind: "panel_described",
          panel: before?.id ?? newId(),
          name,
          place,
          spaces: count,
          columns: numbering === "one" ? "one" : "two",
          numbering: numbering === "odd_even" ? "odd_even" : "straight_down",
          service,
          ...(main.trim() !== "" && { main: Number(main) }),
          card: { width_mm: Number(width), height_mm: Number(height) },
        },
      ]);
      onClose();
    } catch (refused) {
      setError(refused);
    }
  };
  const number = { htmlInput: { inputMode: "decimal" as const } };
  return (
    <>
      <DialogContent sx={{ display: "grid", gap: 2.5, gridTemplateColumns: "1fr 1fr", pt: "8px !important" }}>
        <TextField label="Name" value={name} onChange={(e) => setName(e.target.value)} />
        <TextField
          label="Where it hangs"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
          placeholder="back hall"
        />
        <TextField
          label="Spaces"
          value={spaces}
          onChange={(e) => setSpaces(e.target.value)}
          slotProps={number}
          helperText="2 to 84"
        />
        <TextField
          label="Main, amps"
          value={main}
          onChange={(e) => setMain(e.target.value)}
          slotProps={number}
          helperText="if it was read"
        />
        <TextField
          select
          label="Numbers on the metal"
          value={numbering}
          onChange={(e) => setNumbering(e.target.value)}
          sx={{ gridColumn: "1 / -1" }}
        >
          <MenuItem value="odd_even">Odd down the left, even down the right</MenuItem>
          <MenuItem value="straight_down">Straight down the left, then down the right</MenuItem>
          <MenuItem value="one">One column, straight down</MenuItem>
        </TextField>
        <TextField
          select
          label="What comes in"
          value={service}
          onChange={(e) => setService(e.target.value as Panel["service"])}
          helperText="Legs are worked out from the rows; fuse boxes, split-bus and high-leg services belong to an electrician."
          sx={{ gridColumn: "1 / -1" }}
        >
          <MenuItem value="split_phase">Split-phase 120/240 V</MenuItem>
          <MenuItem value="two_legs_208">Two legs of 208Y/120 V</MenuItem>
          <MenuItem value="three_phase">Three-phase 208Y/120 V</MenuItem>
        </TextField>
        <TextField
          label="Door card width, mm"
          value={width}
          onChange={(e) => setWidth(e.target.value)}
          slotProps={number}
        />
        <TextField
          label="Door card height, mm"
          value={height}
          onChange={(e) => setHeight(e.target.value)}
          slotProps={number}
        />
        {error !== null && (
          <Alert severity="error" variant="outlined" sx={{ gridColumn: "1 / -1" }}>
            {wordsOf(error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave as it was
        </Button>
        <Button variant="contained" onClick={() => void keep()}>
          Keep this panel
        </Button>
      </DialogActions>
    </>
  );
}
