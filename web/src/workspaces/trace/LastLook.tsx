import Button from "@mui/material/Button";
import type { Looks } from "./useLooks";

/** A slip is struck out at once, wherever the trace has gone meanwhile. */
export function LastLook({ looks }: { looks: Looks }) {
  if (!looks.last) return null;
  return (
    <Button color="inherit" onClick={looks.strikeLast} sx={{ alignSelf: "flex-start" }}>
      Strike out: {looks.last.words}
    </Button>
  );
}
