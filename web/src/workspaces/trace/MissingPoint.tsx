import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { HomeOverview, PointKind } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { newId } from "../../api/record";
import type { Looks } from "./useLooks";

/** A point that is there and on no list: added without leaving the trace. */
export function MissingPoint({ home, room, looks }: { home: HomeOverview; room: string | null; looks: Looks }) {
  const [open, setOpen] = useState(false);
  const [where, setWhere] = useState<string | null>(null);
  const [kind, setKind] = useState<PointKind>("receptacle");
  const [name, setName] = useState("");
  const [high, setHigh] = useState(false);
  const at = where ?? room ?? home.rooms[0]?.id ?? "";
  if (!open)
    return (
      <Button color="inherit" onClick={() => setOpen(true)} sx={{ mt: 1 }}>
        A point is missing here
      </Button>
    );
  const add = () => {
    const volts = high ? 240 : 120;
    looks.act([{ kind: "point_placed", point: newId(), room: at, point_kind: kind, name: name.trim(), volts }]);
    setName("");
    setHigh(false);
    setOpen(false);
  };
  return (
    <Stack spacing={1.5} sx={{ mt: 2 }} component="section" aria-label="A missing point">
      <TextField select size="small" label="Room" value={at} onChange={(e) => setWhere(e.target.value)}>
        {home.rooms.map((r) => (
          <MenuItem key={r.id} value={r.id}>
            {r.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField select size="small" label="Kind" value={kind} onChange={(e) => setKind(e.target.value as PointKind)}>
        {LISTS.pointKinds.map(([value, words]) => (
          <MenuItem key={value} value={value}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        size="small"
        label="Where in the room, or which appliance"
        value={name}
        onChange={(e) => setName(e.target.value)}
        autoComplete="off"
      />
      <FormControlLabel
        control={<Checkbox checked={high} onChange={(e) => setHigh(e.target.checked)} />}
        label="240 V: a range, a dryer, a water heater"
      />
      <Stack direction="row" spacing={1.5}>
        <Button variant="contained" disabled={name.trim() === ""} onClick={add}>
          Add this point
        </Button>
        <Button variant="outlined" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </Stack>
    </Stack>
  );
}
