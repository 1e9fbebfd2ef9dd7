import Alert from "@mui/material/Alert";
import { usePending, useStuck } from "../api/record";

/** Says what this device has recorded and could not hand over yet. */
export function OutboxBar() {
  const pending = usePending().filter((batch) => batch.seq === undefined);
  const stuck = useStuck();
  if (!stuck || pending.length === 0) return null;
  const lines = pending.reduce((sum, batch) => sum + batch.entries.length, 0);
  return (
    <Alert severity="warning" variant="filled" square data-testid="outbox" sx={{ color: "#1d2a2e" }}>
      Not sent yet: {lines === 1 ? "1 line" : `${lines} lines`}. Kept on this device; it is sent once Wayfinder answers
      again.
    </Alert>
  );
}
