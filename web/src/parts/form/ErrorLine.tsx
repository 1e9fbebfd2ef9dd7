import Alert from "@mui/material/Alert";
import { wordsOf } from "../../app/useNotice";

/** Why something was not recorded. */
export function ErrorLine({ error }: { error: unknown }) {
  if (error === null || error === undefined) return null;
  return (
    <Alert severity="error" variant="outlined" data-testid="form-error" sx={{ mt: 2, gridColumn: "1 / -1" }}>
      {wordsOf(error)}
    </Alert>
  );
}
