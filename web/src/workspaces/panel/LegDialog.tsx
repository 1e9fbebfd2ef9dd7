import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Panel } from "../../api/client";
import { useRecord } from "../../api/record";
import { wordsOf } from "../../app/useNotice";

interface Props {
  home: string;
  panel: Panel;
  open: boolean;
  onClose: () => void;
}

/** A voltage read between two hot terminals: which leg a row is on. */
export function LegDialog({ home, panel, open, onClose }: Props) {
  const record = useRecord(home);
  const [space, setSpace] = useState("");
  const [against, setAgainst] = useState("");
  const [volts, setVolts] = useState("");
  const [error, setError] = useState<unknown>(null);
  const keep = async () => {
    try {
      await record(
        [{ kind: "leg_read", panel: panel.id, space: Number(space), against: Number(against), volts: Number(volts) }],
        { instrument: "meter" },
      );
      setError(null);
      onClose();
    } catch (refused) {
      setError(refused);
    }
  };
  const numeric = { htmlInput: { inputMode: "numeric" as const, pattern: "[0-9]*" } };
  const digits = (text: string) => text.replace(/[^0-9]/g, "");
  return (
    <Dialog open={open} onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="leg-title">
      <DialogTitle id="leg-title">A reading between two spaces</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 2 }}>
        <Alert severity="error" variant="outlined">
          With the cover off this is live work with arc-flash danger, for qualified people only. At the outlets of two
          circuits the same can be read between their hot slots.
        </Alert>
        <Typography variant="body2" color="text.secondary">
          0 V is one leg; 240 V (208 V) is two. The reading overrides what the numbering tells.
        </Typography>
        <TextField
          label="Space"
          value={space}
          onChange={(e) => setSpace(digits(e.target.value))}
          slotProps={numeric}
          autoFocus
        />
        <TextField
          label="Read against space"
          value={against}
          onChange={(e) => setAgainst(digits(e.target.value))}
          slotProps={numeric}
        />
        <TextField
          label="The meter shows, volts"
          value={volts}
          onChange={(e) => setVolts(digits(e.target.value))}
          slotProps={numeric}
        />
        {error !== null && (
          <Alert severity="error" variant="outlined">
            {wordsOf(error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave as it was
        </Button>
        <Button
          variant="contained"
          disabled={space === "" || against === "" || volts === ""}
          onClick={() => void keep()}
        >
          Keep this reading
        </Button>
      </DialogActions>
    </Dialog>
  );
}
