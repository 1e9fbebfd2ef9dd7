import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";

/** What stands here was typed earlier and never recorded. */
export function KeptNote({ kept, onDiscard }: { kept: boolean; onDiscard: () => void }) {
  if (!kept) return null;
  return (
    <Alert
      severity="info"
      variant="outlined"
      data-testid="kept"
      sx={{ mb: 1 }}
      action={
        <Button color="inherit" onClick={onDiscard}>
          Discard
        </Button>
      }
    >
      You typed this earlier. It is not saved yet.
    </Alert>
  );
}
