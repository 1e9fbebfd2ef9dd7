import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { Link, useNavigate } from "react-router";
import { NoAnswer, ProblemError, answer, api, type Fact, type HomeInList, type Problem } from "../../api/client";
import { useHealth, useHomes } from "../../api/queries";
import { draft, myName, newId, setMyName } from "../../api/record";
import { outbox } from "../../api/outbox";
import { tone } from "../../app/theme";
import { TopBar } from "../../app/TopBar";
import { useNotice, wordsOf } from "../../app/useNotice";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Loaded } from "../../parts/Loaded";
import { MakeHouse } from "../practice/MakeHouse";
import { FileButton } from "../../parts/form/FileButton";

/** Every home on this machine; make one, or take one in from its file. */
export function HomesPage() {
  const homes = useHomes();
  return (
    <>
      <title>Homes · Wayfinder</title>
      <TopBar home={undefined} />
      <Box component="main" sx={{ maxWidth: 760, mx: "auto", p: { xs: 2, md: 4 } }}>
        <Typography variant="h1" sx={{ mb: 2 }}>
          Homes
        </Typography>
        <Stack spacing={2}>
          <Loaded query={homes} what="homes">
            {(list: HomeInList[]) => (
              <>
                {[...list]
                  .sort((a, b) => Number(a.practice != null) - Number(b.practice != null))
                  .map((home) => (
                    <HomeLink key={home.id} home={home} />
                  ))}
                {list.length === 0 && <Typography>No home yet. Name the first one below.</Typography>}
              </>
            )}
          </Loaded>
          <NewHome />
          <MakeHouse />
          <ImportAndReset />
          <Typography variant="body2" color="text.secondary">
            Wayfinder keeps a record and does the deduction. It replaces neither a licensed electrician nor the local
            code. Opening a panel is where many people should stop and call one.
          </Typography>
        </Stack>
      </Box>
    </>
  );
}

function HomeLink({ home }: { home: HomeInList }) {
  return (
    <Box
      component={Link}
      to={`/h/${home.id}`}
      sx={{
        display: "block",
        color: "inherit",
        textDecoration: "none",
        bgcolor: "background.paper",
        border: `1px solid ${tone("rule")}`,
        borderLeft: `6px solid ${tone("pine")}`,
        p: 2,
        "&:hover": { borderLeftColor: tone("blaze") },
      }}
    >
      <Typography variant="h2" component="span">
        {home.name}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {home.panels.length === 0 ? "no panel yet" : home.panels.join("; ")} · {home.progress.proven} of{" "}
        {home.progress.points} points proven
      </Typography>
    </Box>
  );
}

type Units = "metric" | "feet_inches";
const UNITS = [
  ["metric", "meters"],
  ["feet_inches", "feet and inches"],
] as const;

/** What lengths are measured in where the browser's language is spoken. */
function unitsHere(): Units {
  const region = new Intl.Locale(navigator.language).maximize().region;
  return region === "US" || region === "LR" ? "feet_inches" : "metric";
}

function NewHome() {
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [who, setWho] = useState(myName());
  const [units, setUnits] = useState<Units>(unitsHere());
  const [error, setError] = useState<unknown>(null);
  const make = async (event: SyntheticEvent) => {
    event.preventDefault();
    const home = newId();
    setMyName(who);
    try {
      const inFeet: Fact[] = units === "feet_inches" ? [{ kind: "units_chosen", units }] : [];
      await outbox.send(home, [draft({ kind: "home_described", name }), ...inFeet.map((fact) => draft(fact))]);
      await navigate(`/h/${home}/panel`);
    } catch (refused) {
      setError(refused);
    }
  };
  return (
    <Block title="A new home">
      <Box
        component="form"
        onSubmit={(event) => void make(event)}
        sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr" } }}
      >
        <TextField
          label="Name of the home"
          value={name}
          onChange={(e) => setName(e.target.value)}
          required
          autoComplete="off"
        />
        <TextField label="Your name, for the logbook" value={who} onChange={(e) => setWho(e.target.value)} />
        <Choice label="Lengths" value={units} options={UNITS} onChange={setUnits} />
        <Button type="submit" variant="contained">
          Start its logbook
        </Button>
      </Box>
      {error !== null && (
        <Alert severity="error" variant="outlined" sx={{ mt: 2 }}>
          {wordsOf(error)}
        </Alert>
      )}
    </Block>
  );
}

/** A home file is sent as it is: the program reads and judges it. */
async function sendFile(file: File): Promise<string> {
  let response;
  try {
    response = await fetch("/api/import", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: file,
    });
  } catch {
    throw new NoAnswer();
  }
  const body: unknown = await response.json();
  if (!response.ok) throw new ProblemError(body as Problem);
  return (body as { home: string }).home;
}

function ImportAndReset() {
  const health = useHealth();
  const client = useQueryClient();
  const navigate = useNavigate();
  const say = useNotice();
  const [error, setError] = useState<unknown>(null);
  const take = async (file: File) => {
    try {
      const home = await sendFile(file);
      await client.invalidateQueries();
      await navigate(`/h/${home}/panel`);
    } catch (refused) {
      setError(refused);
    }
  };
  const reset = async () => {
    try {
      await answer(api.POST("/api/demo/reset"));
      await client.invalidateQueries();
      say.done("The demo homes are as they were shipped.");
    } catch (refused) {
      say.problem(refused);
    }
  };
  return (
    <Block title="From a file">
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap" }}>
        <FileButton
          words="Open a home file"
          label="Home file"
          accept=".json,application/json"
          onFile={(file) => void take(file)}
        />
        {health.data?.demo && (
          <Button variant="outlined" onClick={() => void reset()}>
            Put the demo homes back as shipped
          </Button>
        )}
      </Stack>
      {error !== null && (
        <Alert severity="error" variant="outlined" sx={{ mt: 2 }} data-testid="import-problem">
          {wordsOf(error)}
        </Alert>
      )}
    </Block>
  );
}
