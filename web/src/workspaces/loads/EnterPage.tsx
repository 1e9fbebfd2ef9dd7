import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Fact, KnownPoint, LoadLine, LoadsView, ProposedLoad } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { useLoads } from "../../api/queries";
import { newId } from "../../api/record";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { VerdictTag } from "../../drawing/Tag";
import { Choice } from "../../parts/Choice";
import { Empty } from "../../parts/Empty";
import { Loaded } from "../../parts/Loaded";
import { amps } from "../../parts/words";
import { EditLoad } from "./EditLoad";

type Appliance = (typeof LISTS.appliances)[number];

/** Points at which something can use power. */
const TAKES = ["receptacle", "light", "appliance", "fan", "alarm"];

/** What is plugged in or connected, room by room. */
export function EnterPage() {
  const home = useThisHome();
  const { room } = useParams();
  const navigate = useNavigate();
  const loads = useLoads(home.id);
  const rooms = home.rooms.filter((r) => home.points.some((p) => p.room === r.id && TAKES.includes(p.kind)));
  const shown = rooms.find((r) => r.id === room) ?? rooms[0];
  if (!shown) {
    return (
      <Empty title="No rooms yet" words="Enter rooms and points first; loads go to points.">
        <Button variant="contained" component={Link} to={`/h/${home.id}/house/list`}>
          Enter rooms and points
        </Button>
      </Empty>
    );
  }
  const next = rooms[rooms.indexOf(shown) + 1];
  return (
    <Box sx={{ maxWidth: 760 }}>
      <Button component={Link} to={`/h/${home.id}/loads`} color="inherit" sx={{ mb: 1 }}>
        All circuits
      </Button>
      <Typography variant="h1">What is where</Typography>
      <Box sx={{ my: 2, display: "grid", maxWidth: 360 }}>
        <Choice
          label="Room"
          value={shown.id}
          options={rooms.map((r) => [r.id, r.name] as const)}
          onChange={(id) => void navigate(`/h/${home.id}/loads/enter/${id}`)}
        />
      </Box>
      <Loaded query={loads} what="loads">
        {(view: LoadsView) => <RoomLoads key={shown.id} view={view} room={shown.id} />}
      </Loaded>
      {next && (
        <Button
          variant="contained"
          sx={{ mt: 2 }}
          onClick={() => void navigate(`/h/${home.id}/loads/enter/${next.id}`)}
        >
          Next room: {next.name}
        </Button>
      )}
    </Box>
  );
}

const everyLoad = (view: LoadsView): LoadLine[] => [
  ...view.circuits.flatMap((circuit) => circuit.loads),
  ...view.elsewhere,
];

function placed(point: string, appliance: Pick<Appliance, "id" | "name">, never: readonly string[] = []) {
  return {
    kind: "load_placed",
    load: newId(),
    point,
    name: appliance.name,
    appliance: appliance.id,
    ...(never.length > 0 && { never_with: [...never] }),
  } satisfies Fact;
}

/** The facts of proposals that are accepted; what excludes the one before it says so. */
function accepted(proposed: readonly ProposedLoad[]): Fact[] {
  const facts: ReturnType<typeof placed>[] = [];
  for (const one of proposed) {
    const before = one.never_with_previous ? facts.filter((fact) => fact.point === one.point).at(-1) : undefined;
    facts.push(placed(one.point, { id: one.appliance, name: one.name } as Appliance, before ? [before.load] : []));
  }
  return facts;
}

function RoomLoads({ view, room }: { view: LoadsView; room: string }) {
  const home = useThisHome();
  const act = useAct(home.id);
  const [edited, setEdited] = useState<string | null>(null);
  const all = everyLoad(view);
  const points = home.points.filter((p) => p.room === room && TAKES.includes(p.kind));
  const here = view.proposed.filter((one) => points.some((p) => p.id === one.point));
  const load = all.find((one) => one.load === edited);
  return (
    <>
      {here.length > 0 && (
        <Box sx={{ border: `1px solid ${tone("rule")}`, bgcolor: tone("card"), borderRadius: 1, p: 1.5, mb: 2 }}>
          <Typography sx={{ mb: 1 }}>
            By the kinds and names of the points:{" "}
            {here.map((one) => `${one.name} (${one.place.split(", ").at(-1)})`).join(", ")}.
          </Typography>
          <Button variant="outlined" onClick={() => void act(accepted(here), "Entered with the library's figures.")}>
            {here.length === 1 ? "Enter it" : `Enter all ${here.length}`}
          </Button>
        </Box>
      )}
      <Box component="ul" aria-label="Points of the room" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {points.map((point) => (
          <PointLoads
            key={point.id}
            point={point}
            loads={all.filter((one) => one.point === point.id)}
            onEdit={setEdited}
            onAdd={(appliance) => void act([placed(point.id, appliance)], `${appliance.name}: entered.`)}
            onUnknown={(name) =>
              void act(
                [{ kind: "load_placed", load: newId(), point: point.id, name, draw: { from: "not_known" } }],
                `${name}: entered, not known what it takes.`,
              )
            }
          />
        ))}
      </Box>
      {load && (
        <EditLoad
          home={home.id}
          load={load}
          others={all.filter((one) => one.load !== load.load && points.some((p) => p.id === one.point))}
          onClose={() => setEdited(null)}
        />
      )}
    </>
  );
}

interface PointProps {
  point: KnownPoint;
  loads: readonly LoadLine[];
  onAdd: (appliance: Appliance) => void;
  /** Something that the library does not have. */
  onUnknown: (name: string) => void;
  onEdit: (load: string) => void;
}

function PointLoads({ point, loads, onAdd, onUnknown, onEdit }: PointProps) {
  const home = useThisHome();
  const [adds, setAdds] = useState(false);
  return (
    <Box component="li" data-point={point.name} sx={{ borderBottom: `1px solid ${tone("rule")}`, py: 0.75 }}>
      <Stack direction="row" spacing={1} sx={{ alignItems: "center" }}>
        <Box sx={{ flex: 1 }}>
          <b>{point.name}</b>
          <Box component="span" sx={{ color: "text.secondary" }}>
            {point.name.toLowerCase().includes(point.kind) ? "" : `, ${point.kind}`}
            {point.volts === 240 ? ", 240 V" : ""}
          </Box>
        </Box>
        <VerdictTag verdict={point.known} home={home} />
        {!adds && (
          <Button variant="outlined" onClick={() => setAdds(true)} aria-label={`Add something at ${point.name}`}>
            Add
          </Button>
        )}
      </Stack>
      {loads.map((load) => (
        <Stack key={load.load} direction="row" spacing={1} sx={{ alignItems: "center", pl: 2 }}>
          <Box sx={{ flex: 1 }}>
            {load.count === 1 ? "" : `${load.count} × `}
            {load.name}
            <Box component="span" sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
              {" "}
              {load.source.split(":")[0]}
            </Box>
          </Box>
          <Box sx={{ fontWeight: 700 }}>{amps(load.amps)} A</Box>
          <Button color="inherit" onClick={() => onEdit(load.load)} aria-label={`Change ${load.name}`}>
            Change
          </Button>
        </Stack>
      ))}
      {adds && (
        <Picker
          point={point}
          onPick={(appliance) => {
            onAdd(appliance);
            setAdds(false);
          }}
          onUnknown={(name) => {
            onUnknown(name);
            setAdds(false);
          }}
          onClose={() => setAdds(false)}
        />
      )}
    </Box>
  );
}

/** What stands in the list beside the appliances: what was typed, as it is. */
interface AsTyped {
  typed: string;
}

interface PickerProps {
  point: KnownPoint;
  onPick: (appliance: Appliance) => void;
  onUnknown: (name: string) => void;
  onClose: () => void;
}

/** An appliance of the library by a few letters; what it does not have is entered as it is typed. */
function Picker({ point, onPick, onUnknown, onClose }: PickerProps) {
  const options = LISTS.appliances.filter((one) => (one.volts === 240) === (point.volts === 240));
  const words = (option: Appliance | AsTyped | string) =>
    typeof option === "string" ? option : "typed" in option ? option.typed : option.name;
  return (
    <Autocomplete<Appliance | AsTyped, false, false, true>
      openOnFocus
      freeSolo
      autoHighlight
      options={options}
      getOptionLabel={words}
      filterOptions={(all, { inputValue }) => {
        const typed = inputValue.trim().toLowerCase();
        const parts = typed.split(/\s+/);
        const fits = all.filter((one) => parts.every((part) => words(one).toLowerCase().includes(part)));
        return typed === "" || fits.some((one) => words(one).toLowerCase() === typed)
          ? fits
          : [...fits, { typed: inputValue.trim() }];
      }}
      renderOption={({ key, ...props }, option) => (
        <Box component="li" key={key} {...props} sx={{ minHeight: 44, display: "flex", gap: 1 }}>
          <Box sx={{ flex: 1 }}>{"typed" in option ? `“${option.typed}”, not known what it takes` : option.name}</Box>
          {"typed" in option ? null : <Box sx={{ color: "text.secondary" }}>{option.watts} W</Box>}
        </Box>
      )}
      onChange={(_, option) => {
        if (option === null) return;
        if (typeof option === "string") onUnknown(option);
        else if ("typed" in option) onUnknown(option.typed);
        else onPick(option);
      }}
      onClose={(_, reason) => {
        if (reason === "escape") onClose();
      }}
      renderInput={(params) => (
        <TextField {...params} autoFocus label={`At ${point.name}: a few letters`} sx={{ mt: 1 }} />
      )}
      sx={{ mb: 1 }}
    />
  );
}
