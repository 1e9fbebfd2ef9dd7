import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { SupplyDiagnosis } from "../../api/client";
import { ReadVolts } from "./read/ReadVolts";

/** What volts at outlets say of the supply, and the outlet to read next. */
export function Supply({ home, supply }: { home: string; supply: SupplyDiagnosis }) {
  const [reads, setReads] = useState(false);
  return (
    <>
      <Alert
        severity={supply.stop ? "error" : "warning"}
        variant="outlined"
        sx={{ my: 2, maxWidth: 760 }}
        data-testid="supply"
      >
        <Typography sx={{ fontWeight: 700 }}>{supply.words}</Typography>
        {supply.next}
        {!supply.stop && (
          <Button variant="outlined" color="inherit" onClick={() => setReads(true)} sx={{ mt: 1, display: "block" }}>
            Write volts down
          </Button>
        )}
      </Alert>
      {reads && <ReadVolts home={home} point={supply.read_next ?? ""} onClose={() => setReads(false)} />}
    </>
  );
}
