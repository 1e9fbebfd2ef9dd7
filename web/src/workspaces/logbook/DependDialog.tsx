import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";

interface Props {
  words: string;
  count: number;
  onStrike: () => void;
  onClose: () => void;
}

/** Later lines depend on the one to be struck out: all together or none. */
export function DependDialog({ words, count, onStrike, onClose }: Props) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="depend-title">
      <DialogTitle id="depend-title">Other lines depend on it</DialogTitle>
      <DialogContent>
        <Typography>{words}</Typography>
        <Typography sx={{ mt: 1 }}>Nothing was struck out yet. Each line can be struck back in later.</Typography>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button variant="contained" onClick={onStrike}>
          Strike out all {count}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
