import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { DangerSign, Extent, Fact, HomeOverview, Onset, Symptom, TroubleAt } from "../../api/client";
import { useLoads } from "../../api/queries";
import { LISTS } from "../../api/generated/lists";
import { newId } from "../../api/record";
import { useAct } from "../../app/useAct";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";

type What = Symptom | "tripped";

const WHAT: readonly (readonly [What, string])[] = [
  ["dark", "Dark"],
  ["tripped", "A breaker tripped"],
  ["flicker", "Flickers"],
  ["dim", "Dim or weak"],
  ["bright", "Too bright"],
];

interface Place {
  at: TroubleAt;
  name: string;
}

const ANYWHERE: Place = { at: "home", name: "Somewhere else in the house" };

/** What is wrong, in three taps: what is seen, where, go. A sign of danger goes at once. */
export function TellForm({ home }: { home: HomeOverview }) {
  const [asked] = useSearchParams();
  const act = useAct(home.id);
  const go = useNavigate();
  const [what, setWhat] = useState<What>(asked.get("tripped") === null ? "dark" : "tripped");
  const places = what === "tripped" ? breakers(home) : points(home);
  const given = asked.get("point") ?? asked.get("tripped");
  const [place, setPlace] = useState<Place | null>(places.find((one) => idOf(one.at) === given) ?? null);
  const [extent, setExtent] = useState<Extent | "">("");
  const [onset, setOnset] = useState<Onset>("unknown");
  const [running, setRunning] = useState<string[]>([]);
  const [last, setLast] = useState("");
  const [also, setAlso] = useState<string[]>([]);
  const [works, setWorks] = useState<string[]>([]);
  const symptom = what === "tripped" ? ("dark" as const) : what;
  const others = points(home).filter((one) => one.at !== "home" && idOf(one.at) !== (place ? idOf(place.at) : ""));
  const tell = async (at: TroubleAt, sign: DangerSign | null) => {
    const trouble = newId();
    const told = {
      at,
      symptom,
      also: also.map((point) => ({ point, symptom })),
      works,
      extent: extent === "" ? null : extent,
      onset,
      last_on: last === "" ? null : last,
      running,
    };
    const facts: Fact[] = [{ kind: "trouble_told", trouble, told }];
    if (sign !== null) facts.push({ kind: "trouble_looked", trouble, at: { look: "safety" }, saw: { danger: sign } });
    if (await act(facts)) await go(`/h/${home.id}/trips/${trouble}`);
  };
  return (
    <Box
      component="form"
      aria-label="What is wrong"
      onSubmit={(event) => {
        event.preventDefault();
        if (place) void tell(place.at, null);
      }}
      sx={{ display: "grid", gap: 2, maxWidth: 720 }}
    >
      <Stack direction="row" useFlexGap spacing={1} role="group" aria-label="What is seen" sx={{ flexWrap: "wrap" }}>
        {WHAT.map(([value, words]) => (
          <Button
            key={value}
            variant={value === what ? "contained" : "outlined"}
            color={value === what ? "secondary" : "inherit"}
            aria-pressed={value === what}
            onClick={() => {
              if ((value === "tripped") !== (what === "tripped")) setPlace(null);
              setWhat(value);
            }}
            sx={{ minHeight: 48 }}
          >
            {words}
          </Button>
        ))}
      </Stack>
      <Autocomplete<Place>
        options={places}
        value={place}
        openOnFocus
        autoHighlight
        getOptionLabel={(one) => one.name}
        isOptionEqualToValue={(one, other) => idOf(one.at) === idOf(other.at)}
        onChange={(_, one) => setPlace(one)}
        renderOption={({ key, ...props }, one) => (
          <Box component="li" key={key} {...props} sx={{ minHeight: 44 }}>
            {one.name}
          </Box>
        )}
        renderInput={(params) => <TextField {...params} label={what === "tripped" ? "Which breaker" : "Where"} />}
      />
      {what !== "tripped" && (
        <Typography variant="body2">
          Or tap it <Link to={`/h/${home.id}/house`}>on the plan</Link>, then “It does not work”.
        </Typography>
      )}
      <Fold label="what you know" onPage>
        <Points
          label={`${WHAT.find(([value]) => value === symptom)?.[1] ?? ""} as well`}
          all={others.filter((one) => !works.includes(idOf(one.at)))}
          chosen={also}
          onChoose={setAlso}
        />
        <Points
          label="What works"
          all={others.filter((one) => !also.includes(idOf(one.at)))}
          chosen={works}
          onChoose={setWorks}
        />
        <Choice
          label="How much is out"
          value={extent}
          options={
            [
              ["", "Not looked"],
              ["one", "This one thing"],
              ["some", "Several"],
              ["half", "About half of the house"],
              ["all", "All of it"],
            ] as const
          }
          onChange={setExtent}
        />
        <Choice
          label="When it happened"
          value={onset}
          options={
            [
              ["unknown", "Nobody knows"],
              ["at_once", "At once, as something was switched on"],
              ["minutes", "After something had run for a while"],
            ] as const
          }
          onChange={setOnset}
        />
        <Running home={home.id} running={running} onRunning={setRunning} last={last} onLast={setLast} />
      </Fold>
      <Button type="submit" variant="contained" size="large" disabled={!place} sx={{ minHeight: 56 }}>
        Find out why
      </Button>
      <Box>
        <Typography component="h2" variant="h3" sx={{ mb: 1 }}>
          A sign of danger? Tap it now
        </Typography>
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
          {LISTS.dangerSigns.map(([sign, words]) => (
            <Button
              key={sign}
              variant="contained"
              color="error"
              onClick={() => void tell(place?.at ?? "home", sign)}
              sx={{ minHeight: 48 }}
            >
              {words}
            </Button>
          ))}
        </Stack>
      </Box>
    </Box>
  );
}

const idOf = (at: TroubleAt) => (at === "home" ? "home" : "point" in at ? at.point : at.breaker);

function points(home: HomeOverview): Place[] {
  const room = (id: string) => home.rooms.find((one) => one.id === id)?.name ?? "";
  const seen = home.points.filter((p) => !["switch", "junction_box", "capped_cable"].includes(p.kind));
  return [...seen.map((p) => ({ at: { point: p.id }, name: `${room(p.room)}, ${p.name}` })), ANYWHERE];
}

function breakers(home: HomeOverview): Place[] {
  return home.panels.flatMap((view) =>
    view.breakers.map((one) => ({ at: { breaker: one.breaker }, name: `${one.number}: ${one.claim ?? one.place}` })),
  );
}

interface PointsProps {
  label: string;
  all: readonly Place[];
  chosen: string[];
  onChoose: (points: string[]) => void;
}

/** Some points of the home. */
function Points({ label, all, chosen, onChoose }: PointsProps) {
  return (
    <Autocomplete<string, true>
      multiple
      filterSelectedOptions
      autoHighlight
      options={all.map((one) => idOf(one.at))}
      getOptionLabel={(id) => all.find((one) => idOf(one.at) === id)?.name ?? ""}
      value={chosen}
      onChange={(_, points) => onChoose(points)}
      renderInput={(params) => <TextField {...params} label={label} />}
    />
  );
}

interface RunningProps {
  home: string;
  running: string[];
  onRunning: (loads: string[]) => void;
  last: string;
  onLast: (load: string) => void;
}

/** What ran, and what was switched on last: of the loads that are entered. */
function Running({ home, running, onRunning, last, onLast }: RunningProps) {
  const loads = useLoads(home);
  const lines = [...(loads.data?.circuits.flatMap((c) => c.loads) ?? []), ...(loads.data?.elsewhere ?? [])];
  if (lines.length === 0)
    return (
      <Typography variant="body2">
        With the appliances entered under Loads, what ran can be added up against the breaker.
      </Typography>
    );
  const name = (id: string) => {
    const line = lines.find((one) => one.load === id);
    return line ? `${line.name} (${line.place})` : "";
  };
  return (
    <>
      <Autocomplete<string, true>
        multiple
        filterSelectedOptions
        autoHighlight
        options={lines.map((line) => line.load)}
        getOptionLabel={name}
        value={running}
        onChange={(_, chosen) => onRunning(chosen)}
        renderInput={(params) => <TextField {...params} label="What ran" />}
      />
      <Choice
        label="Switched on or plugged in last"
        value={last}
        options={[["", "Not known"] as const, ...lines.map((line) => [line.load, name(line.load)] as const)]}
        onChange={onLast}
      />
    </>
  );
}
