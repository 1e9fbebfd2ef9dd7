import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import type { HomeOverview } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { breakersOf } from "../../drawing/place";
import { Choice } from "../../parts/Choice";
import { ALL_LINES, type Filter } from "./filter";

interface Props {
  home: HomeOverview;
  filter: Filter;
  /** Everybody who wrote a line. */
  people: readonly string[];
  onChange: (filter: Filter) => void;
}

/** Since when, and which lines: by words, room, breaker, person and kind. */
export function Filters({ home, filter, people, onChange }: Props) {
  const set = (part: Partial<Filter>) => onChange({ ...filter, ...part });
  const visit = filter.since.startsWith("visit:");
  const everybody = [...new Set([...people, ...(visit ? [filter.since.slice("visit:".length)] : [])])];
  const any = JSON.stringify(filter) !== JSON.stringify(ALL_LINES);
  return (
    <Box
      role="search"
      aria-label="Lines of the logbook"
      sx={{
        display: "grid",
        gap: 1.5,
        maxWidth: 900,
        mb: 2,
        gridTemplateColumns: { xs: "minmax(0, 1fr) minmax(0, 1fr)", md: "repeat(4, minmax(0, 1fr))" },
        alignItems: "center",
      }}
    >
      <TextField
        label="Words"
        value={filter.text}
        onChange={(event) => set({ text: event.target.value })}
        autoComplete="off"
      />
      <Choice
        label="What changed since"
        value={visit ? filter.since : ""}
        options={[
          ["", visit || filter.since === "" ? "all that was written" : "the day beside"],
          ...everybody.map((name) => [`visit:${name}`, `the last visit of ${name}`] as const),
        ]}
        onChange={(since) => set({ since })}
      />
      <TextField
        type="date"
        label="Or since the day"
        value={visit ? "" : filter.since}
        onChange={(event) => set({ since: event.target.value })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <Choice
        label="By"
        value={filter.by}
        options={[["", "anybody"], ...people.map((name) => [name, name] as const)]}
        onChange={(by) => set({ by })}
      />
      <Choice
        label="Room"
        value={filter.room}
        options={[["", "any room"], ...home.rooms.map((room) => [room.id, room.name] as const)]}
        onChange={(room) => set({ room })}
      />
      <Choice
        label="Breaker"
        value={filter.breaker}
        options={[["", "any breaker"], ...breakersOf(home).map((one) => [one.breaker, one.tag] as const)]}
        onChange={(breaker) => set({ breaker })}
      />
      <Choice
        label="About"
        value={filter.topic}
        options={[["", "anything"], ...LISTS.topics]}
        onChange={(topic) => set({ topic })}
      />
      {any && (
        <Button variant="outlined" color="inherit" onClick={() => onChange(ALL_LINES)} sx={{ minHeight: 48 }}>
          Show every line
        </Button>
      )}
    </Box>
  );
}
