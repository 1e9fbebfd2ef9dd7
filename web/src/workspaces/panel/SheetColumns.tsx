import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { ColumnRole, SheetRead } from "../../api/client";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";

const ROLES: [ColumnRole, string][] = [
  ["space", "space numbers"],
  ["amps", "amps"],
  ["poles", "poles"],
  ["label", "what the card says"],
  ["kind", "kind"],
  ["wire", "wire"],
  ["ignore", "not taken"],
];

interface Props {
  read: SheetRead;
  onChange: (columns: ColumnRole[]) => void;
  onClose: () => void;
}

/** What each column of a sheet was taken for, to be corrected; and which rows gave nothing. */
export function SheetColumns({ read, onChange, onClose }: Props) {
  return (
    <Box sx={{ mb: 2 }} data-testid="sheet-columns">
      <Block title="What the columns hold">
        <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Columns of the sheet">
          <Box component="table" sx={{ borderCollapse: "collapse" }}>
            <thead>
              <tr>
                {read.columns.map((role, n) => (
                  <Box component="th" key={n} sx={{ p: 0.75, textAlign: "left", verticalAlign: "bottom" }}>
                    <TextField
                      select
                      size="small"
                      label={read.names[n]}
                      value={role}
                      onChange={(event) =>
                        onChange(read.columns.map((old, at) => (at === n ? (event.target.value as ColumnRole) : old)))
                      }
                      sx={{ minWidth: 150 }}
                    >
                      {ROLES.map(([value, words]) => (
                        <MenuItem key={value} value={value}>
                          {words}
                        </MenuItem>
                      ))}
                    </TextField>
                  </Box>
                ))}
              </tr>
            </thead>
            <tbody>
              {read.sample.map((row, n) => (
                <tr key={n}>
                  {read.columns.map((role, at) => (
                    <Box
                      component="td"
                      key={at}
                      sx={{
                        p: 0.75,
                        fontSize: "0.85rem",
                        borderTop: `1px solid ${tone("rule")}`,
                        color: role === "ignore" ? "text.secondary" : "inherit",
                      }}
                    >
                      {row[at]}
                    </Box>
                  ))}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
        {read.passed_over.length > 0 && (
          <Typography variant="body2" sx={{ mt: 1 }} data-testid="passed-over">
            Passed over:{" "}
            {read.passed_over
              .slice(0, 6)
              .map((row) => `row ${row.row}: ${row.why}`)
              .join(" ")}
            {read.passed_over.length > 6 && ` And ${read.passed_over.length - 6} more rows.`}
          </Typography>
        )}
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          The lines below follow from it. Nothing is recorded yet; correct a line by hand where the sheet is wrong.
        </Typography>
        <Button color="inherit" onClick={onClose} sx={{ px: 0 }}>
          The columns are right
        </Button>
      </Block>
    </Box>
  );
}
