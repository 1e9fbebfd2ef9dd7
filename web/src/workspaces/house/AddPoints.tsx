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
import { newId, useRecord } from "../../api/record";
import { useNotice } from "../../app/useNotice";
import { Block } from "../../parts/Block";

const KINDS: [PointKind, string][] = [
  ["receptacle", "Receptacle"],
  ["light", "Light"],
  ["switch", "Switch"],
  ["appliance", "Appliance"],
  ["alarm", "Alarm"],
  ["fan", "Fan"],
  ["junction_box", "Junction box"],
  ["capped_cable", "Capped cable"],
];

/** Adds points in a row: the kind stays, Enter adds, an empty name is counted on. */
export function AddPoints({ home, room }: { home: HomeOverview; room: Room }) {
  const record = useRecord(home.id);
  const say = useNotice();
  const field = useRef<HTMLInputElement>(null);
  const [kind, setKind] = useState<PointKind>("receptacle");
  const [name, setName] = useState("");
  const [high, setHigh] = useState(false);
  const [last, setLast] = useState<{ kind: PointKind; name: string; high: boolean } | null>(null);

  const free = (wanted: PointKind, words: string): string => {
    const taken = home.points.filter((p) => p.room === room.id && p.kind === wanted).map((p) => p.name.toLowerCase());
    const base = words.trim().replace(/ \d+$/, "") || wanted.replace("_", " ");
    if (words.trim() !== "" && !taken.includes(words.trim().toLowerCase())) return words.trim();
    for (let n = words.trim() === "" ? 1 : 2; ; n += 1)
      if (!taken.includes(`${base} ${n}`.toLowerCase())) return `${base} ${n}`;
  };
  const add = async (point: { kind: PointKind; name: string; high: boolean }) => {
    const words = free(point.kind, point.name);
    try {
      await record([
        {
          kind: "point_placed",
          point: newId(),
          room: room.id,
          point_kind: point.kind,
          name: words,
          volts: point.high ? 240 : 120,
        },
      ]);
      setLast({ ...point, name: words });
      setName("");
      setHigh(false);
    } catch (refused) {
      say.problem(refused);
    }
    field.current?.focus();
  };
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    void add({ kind, name, high });
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
          {KINDS.map(([value, words]) => (
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
