import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState, type SyntheticEvent } from "react";
import type { HomeOverview } from "../../api/client";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";

interface Props {
  home: HomeOverview;
  wish: string;
  panel: string;
  onWish: (wish: string, panel: string) => void;
}

const KINDS = [
  ["circuit", "a new circuit"],
  ["spaces", "open spaces"],
  ["replace", "another breaker"],
  ["guard", "GFCI or AFCI"],
  ["double", "240 V in place of 120 V"],
  ["combine", "two circuits made one"],
  ["level", "the legs leveled"],
] as const;
type Kind = (typeof KINDS)[number][0];

const AMPS = ["15", "20", "25", "30", "40", "50", "60"].map((amps) => [amps, `${amps} A`] as const);
const POLES = [
  ["one-pole", "one pole, 120 V"],
  ["two-pole", "two poles, 240 V"],
] as const;
const GUARDS = [
  ["GFCI", "GFCI"],
  ["AFCI", "AFCI"],
  ["dual", "GFCI and AFCI"],
] as const;

/** What somebody wants of a panel: typed as they say it, or put together by touch. */
export function WishForm({ home, wish, panel, onWish }: Props) {
  const [text, setText] = useState(wish);
  const [on, setOn] = useState(panel || (home.panels[0]?.panel.id ?? ""));
  const ask = (event: SyntheticEvent) => {
    event.preventDefault();
    if (text.trim() !== "") onWish(text.trim(), on);
  };
  return (
    <Box component="form" onSubmit={ask} sx={{ maxWidth: 900, mb: 2 }}>
      <Stack direction={{ xs: "column", sm: "row" }} spacing={1.5} sx={{ alignItems: { sm: "flex-start" } }}>
        <TextField
          label="What do you want of the panel?"
          placeholder="40 A two-pole for the kiln that takes 32 A"
          value={text}
          onChange={(event) => setText(event.target.value)}
          autoComplete="off"
          fullWidth
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        {home.panels.length > 1 && (
          <Box sx={{ minWidth: 190, display: "grid" }}>
            <Choice
              label="In which panel"
              value={on}
              options={home.panels.map((view) => [view.panel.id, view.panel.name] as const)}
              onChange={setOn}
            />
          </Box>
        )}
        <Button type="submit" variant="contained" sx={{ flex: "none", minHeight: 56 }}>
          Find ways
        </Button>
      </Stack>
      <Stack spacing={1.5} sx={{ mt: 1 }}>
        <Fold label="put it together by touch" onPage>
          <ByTouch
            home={home}
            panel={on}
            onWish={(said) => {
              setText(said);
              onWish(said, on);
            }}
          />
        </Fold>
      </Stack>
    </Box>
  );
}

interface TouchProps {
  home: HomeOverview;
  panel: string;
  onWish: (wish: string) => void;
}

function ByTouch({ home, panel, onWish }: TouchProps) {
  const [kind, setKind] = useState<Kind>("circuit");
  const [amps, setAmps] = useState("20");
  const [poles, setPoles] = useState<(typeof POLES)[number][0]>("one-pole");
  const [guard, setGuard] = useState<(typeof GUARDS)[number][0]>("GFCI");
  const [what, setWhat] = useState("");
  const [takes, setTakes] = useState("");
  const [count, setCount] = useState<"1" | "2">("2");
  const breakers = home.panels.find((view) => view.panel.id === panel)?.breakers ?? [];
  const [picked, setPicked] = useState("");
  const number = breakers.some((one) => one.number === picked) ? picked : (breakers[0]?.number ?? "");
  const said = (): string => {
    switch (kind) {
      case "circuit":
        return `${amps} A ${poles}${what.trim() && ` for the ${what.trim()}`}${takes && ` that takes ${takes} A`}`;
      case "spaces":
        return count === "1" ? "an open space" : "two open spaces side by side";
      case "replace":
        return `replace ${number} with ${amps} A`;
      case "guard":
        return `${guard} for ${number}`;
      case "double":
        return `make ${number} 240 V`;
      case "combine":
        return "combine two light circuits";
      case "level":
        return "level the legs";
    }
  };
  const ofBreaker = kind === "replace" || kind === "guard" || kind === "double";
  return (
    <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
      <Choice label="Wanted" value={kind} options={KINDS} onChange={setKind} wide />
      {kind === "circuit" && (
        <>
          <Choice label="Poles" value={poles} options={POLES} onChange={setPoles} />
          <Choice label="Breaker" value={amps} options={AMPS} onChange={setAmps} />
          <TextField
            label="For what"
            value={what}
            onChange={(event) => setWhat(event.target.value)}
            autoComplete="off"
          />
          <TextField
            label="It takes, A"
            value={takes}
            onChange={(event) => setTakes(event.target.value.replace(/[^0-9]/g, ""))}
            autoComplete="off"
            helperText="by its plate, where that is known"
            slotProps={{ htmlInput: { inputMode: "numeric" } }}
          />
        </>
      )}
      {kind === "spaces" && (
        <Choice
          label="How many"
          value={count}
          options={
            [
              ["1", "one"],
              ["2", "two side by side"],
            ] as const
          }
          onChange={setCount}
        />
      )}
      {ofBreaker && (
        <Choice
          label="Breaker"
          value={number}
          options={breakers.map(
            (one) => [one.number, `${one.number}: ${one.wording || one.claim || "not traced"}`] as const,
          )}
          onChange={setPicked}
        />
      )}
      {kind === "replace" && <Choice label="By one of" value={amps} options={AMPS} onChange={setAmps} />}
      {kind === "guard" && <Choice label="Which" value={guard} options={GUARDS} onChange={setGuard} />}
      <Button variant="outlined" onClick={() => onWish(said())} sx={{ justifySelf: "start" }}>
        Find ways to this
      </Button>
    </Box>
  );
}
