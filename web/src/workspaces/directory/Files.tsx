import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Link from "@mui/material/Link";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useId, useState } from "react";
import type { WordsRead } from "../../api/client";
import { readWords, today } from "../../api/queries";
import { myName } from "../../api/record";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { Fold } from "../../parts/Fold";
import { FileButton } from "../../parts/form/FileButton";
import { ChangedLine } from "./ChangedLine";

const FORMATS = [
  ["csv", "CSV"],
  ["xlsx", "XLSX"],
  ["ods", "ODS"],
  ["svg", "SVG of this card"],
  ["json", "JSON of this card"],
] as const;

/** The directory as a file, and own words out of a sheet that somebody changed. */
export function Files({ home, panel, colors }: { home: string; panel: string; colors: string }) {
  const say = useNotice();
  const [read, setRead] = useState<WordsRead | null>(null);
  const query = new URLSearchParams({ panel, colors, date: today(), by: myName() }).toString();
  return (
    <Fold label="files" onPage>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap", alignItems: "center" }}>
        {FORMATS.map(([format, words]) => (
          <Button
            key={format}
            variant="outlined"
            color="inherit"
            component={Link}
            href={`/api/homes/${home}/directory/as/${format}?${query}`}
          >
            {words}
          </Button>
        ))}
        <FileButton
          words="Take own words from a sheet"
          label="Sheet with own words"
          accept=".csv,.xlsx,.ods"
          onFile={(file) => {
            readWords(home, file).then(setRead, say.problem);
          }}
        />
      </Stack>
      <Typography variant="body2">
        Change the column Own words in the CSV, XLSX or ODS file and take it in again. Nothing is written before you
        have seen what changes.
      </Typography>
      {read !== null && <Preview home={home} read={read} onClose={() => setRead(null)} />}
    </Fold>
  );
}

interface PreviewProps {
  home: string;
  read: WordsRead;
  onClose: () => void;
}

/** What a sheet would change, line by line. */
function Preview({ home, read, onClose }: PreviewProps) {
  const act = useAct(home);
  const id = useId();
  const { proposed } = read;
  const words = proposed.length === 1 ? "Write this line" : `Write these ${proposed.length} lines`;
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby={id}>
      <DialogTitle id={id}>Own words from the sheet</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1 }}>
          {proposed.length === 0 && "The sheet changes nothing. "}
          {read.unchanged === 1 ? "1 line stays as it is." : `${read.unchanged} lines stay as they are.`}
        </Typography>
        <Box component="ul" data-testid="proposed" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1.5 }}>
          {proposed.map((one) => (
            <li key={one.row} data-tag={one.tag}>
              <ChangedLine number={one.tag} before={one.before} after={one.after} why={[]} />
              {one.wrong != null && (
                <Typography variant="body2" color="error">
                  {one.wrong}.
                </Typography>
              )}
            </li>
          ))}
        </Box>
        {read.passed_over.length > 0 && (
          <Alert severity="warning" variant="outlined" sx={{ mt: 2 }}>
            {read.passed_over.map((row) => (
              <div key={row.row}>
                Row {row.row}: {row.why}
              </div>
            ))}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        {proposed.length > 0 && (
          <Button
            variant="contained"
            onClick={() => {
              void act(
                proposed.map((one) => one.fact),
                "The own words are written.",
              ).then((done) => {
                if (done) onClose();
              });
            }}
          >
            {words}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
