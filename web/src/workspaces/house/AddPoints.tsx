import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useRef, useState, type SyntheticEvent } from "react";
import type { HomeOverview, PointKind, Room } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { newId } from "../../api/record";
import { useWish } from "./plan/useWish";
import { Block } from "../../parts/Block";

/** A point as it is typed. */
interface Adding {
  kind: PointKind;
  name: string;
  high: boolean;
  gfci: boolean;
}

/** Adds points in a row: the kind stays, Enter adds, an empty name is counted on. */
export function AddPoints({ home, room }: { home: HomeOverview; room: Room }) {
  const wish = useWish(home.id);
  const field = useRef<HTMLInputElement>(null);
  const [kind, setKind] = useState<PointKind>("receptacle");
  const [name, setName] = useState("");
  const [high, setHigh] = useState(false);
  const [gfci, setGfci] = useState(false);
  const [last, setLast] = useState<Adding | null>(null);

  const add = async (point: Adding) => {
    const volts = point.high ? 240 : 120;
    const added = await wish({
      wish: "list_point",
      point: newId(),
      room: room.id,
      point_kind: point.kind,
      name: point.name,
      volts,
      details: { ...LISTS.plainPoint, gfci: point.gfci },
    });
    if (added) {
      setLast(point);
      setName("");
      setHigh(false);
      setGfci(false);
    }
    field.current?.focus();
  };
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    void add({ kind, name, high, gfci: gfci && kind === "receptacle" });
  };
  return (
    <Block title={`Add to ${room.name}`}>
      <Stack component="form" spacing={1.5} onSubmit={submit}>
        <ToggleButtonGroup
          exclusive
          value={kind}
          onChange={(_, value: PointKind | null) => {
            if (value) setKind(value);
            field.current?.focus();
          }}
          aria-label="Kind of point"
          sx={{ flexWrap: "wrap" }}
        >
          {LISTS.pointKinds.map(([value, words]) => (
            <ToggleButton
              key={value}
              value={value}
              sx={{ px: { xs: 0.7, sm: 2 }, fontSize: { xs: "0.8rem", sm: "0.9rem" } }}
            >
              {words}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", alignItems: "center" }}>
          <TextField
            inputRef={field}
            label={kind === "appliance" ? "Which appliance" : "Where in the room"}
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder={kind === "appliance" ? "dishwasher" : "south wall, left"}
            size="small"
            autoComplete="off"
            sx={{ flex: "1 1 200px" }}
          />
          <FormControlLabel
            control={<Checkbox checked={high} onChange={(e) => setHigh(e.target.checked)} />}
            label="240 V"
          />
          {kind === "receptacle" && (
            <FormControlLabel
              control={<Checkbox checked={gfci} onChange={(e) => setGfci(e.target.checked)} />}
              label="test button (GFCI)"
            />
          )}
          <Button type="submit" variant="contained">
            Add
          </Button>
          <Button type="button" variant="outlined" disabled={!last} onClick={() => last && void add(last)}>
            Repeat last
          </Button>
        </Stack>
        <Typography variant="body2" color="text.secondary">
          Enter adds and stays here for the next one. Without a name it is numbered.
          {high && " A plug-in tester or tone sender never goes on 240 V: watch the appliance itself."}
        </Typography>
      </Stack>
    </Block>
  );
}
