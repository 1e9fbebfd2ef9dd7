import Alert from "@mui/material/Alert";
import { useKeptSince } from "../api/queries";
import { usePending, useStuck } from "../api/record";

/** Says when the screen may be old, and what this device has recorded and could not hand over yet. */
export function ConnectionBar({ live }: { live: boolean }) {
  const pending = usePending().filter((batch) => batch.seq === undefined);
  const stuck = useStuck();
  const kept = useKeptSince();
  const waiting = stuck && pending.length > 0;
  if (live && kept === null && !waiting) return null;
  const lines = pending.reduce((sum, batch) => sum + batch.entries.length, 0);
  return (
    <Alert
      severity="warning"
      variant="filled"
      square
      sx={{ position: "sticky", top: 56, zIndex: 19, bgcolor: "#e9a820", color: "#1d2a2e" }}
    >
      {(!live || kept !== null) && (
        <span data-testid="stale">
          Wayfinder does not answer: what is shown may be old, also which breakers are off.{" "}
          {kept !== null && `It is from ${moment(kept)}. `}
        </span>
      )}
      {waiting && (
        <span data-testid="outbox">
          Not sent yet: {lines === 1 ? "1 line" : `${lines} lines`}. Kept on this device; it is sent once Wayfinder
          answers again.
        </span>
      )}
    </Alert>
  );
}

/** A time of today as such, an earlier one with its day. */
function moment(at: number): string {
  const date = new Date(at);
  const isToday = date.toDateString() === new Date().toDateString();
  return date.toLocaleString(undefined, {
    hour: "2-digit",
    minute: "2-digit",
    ...(!isToday && { day: "numeric", month: "short" }),
  });
}
