import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import { WORKSPACES } from "./workspaces";

const KEYS: [string, string][] = [
  ...WORKSPACES.map((w): [string, string] => [`g ${w.key}`, `Go to ${w.name}`]),
  ["Enter", "Trace: press the main button of the step"],
  ["d, l, s, v", "Trace: dark, lit, skip, volts of a meter"],
  ["u", "Trace: strike out your last look"],
  ["arrows", "Panel: from breaker to breaker"],
  ["a number", "Panel: to that breaker or space"],
  ["m", "Panel: move the selected breaker"],
  ["n", "House: to the next point without a circuit"],
  ["arrows", "House: from point to point; with Shift they move the selected one"],
  ["/", "Find a room, a point, a breaker"],
  ["?", "These keys"],
];

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys</DialogTitle>
      <DialogContent>
        <Table size="small">
          <TableBody>
            {KEYS.map(([key, words]) => (
              <TableRow key={words}>
                <TableCell component="th" scope="row" sx={{ fontWeight: 700 }}>
                  {key}
                </TableCell>
                <TableCell>{words}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
