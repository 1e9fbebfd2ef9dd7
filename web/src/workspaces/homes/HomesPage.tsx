import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import {
  NoAnswer,
  ProblemError,
  answer,
  api,
  type AllHomes,
  type Fact,
  type HomeInList,
  type Problem,
} from "../../api/client";
import { useHealth, useHomes } from "../../api/queries";
import { draft, myName, newId, setMyName } from "../../api/record";
import { outbox } from "../../api/outbox";
import { ConnectionBar } from "../../app/ConnectionBar";
import { TopBar } from "../../app/TopBar";
import { useNotice, wordsOf } from "../../app/useNotice";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";
import { Loaded } from "../../parts/Loaded";
import { DamagedHomes } from "./DamagedHomes";
import { DeletedHomes } from "./DeletedHomes";
import { HomeRow } from "./HomeRow";
import { MovedHomes } from "./MovedHomes";
import { MakeHouse } from "../practice/MakeHouse";
import { FileButton } from "../../parts/form/FileButton";

/** Every home on this machine; make one, or take one in from its file. */
export function HomesPage() {
  const homes = useHomes();
  return (
    <>
      <title>Homes · Wayfinder</title>
      <TopBar home={undefined} />
      <ConnectionBar live />
      <Box component="main" sx={{ maxWidth: 760, mx: "auto", p: { xs: 2, md: 4 } }}>
        <Typography variant="h1" sx={{ mb: 2 }}>
          Homes
        </Typography>
        <Stack spacing={2}>
          <Loaded query={homes} what="homes">
            {(all: AllHomes) => <Lists all={all} />}
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

function Lists({ all }: { all: AllHomes }) {
  const shown = (wanted: (home: HomeInList) => boolean) => all.homes.filter(wanted);
  const archive = shown((home) => home.archived);
  const madeUp = shown((home) => !home.archived && home.practice != null);
  return (
    <>
      {all.damaged.length > 0 && <DamagedHomes homes={all.damaged} />}
      <Rows homes={shown((home) => !home.archived && home.practice == null)} />
      {all.unchecked > 0 && (
        <Typography role="status" color="text.secondary">
          Looking for damage: {all.unchecked === 1 ? "1 home" : `${all.unchecked} homes`} still to be read.
        </Typography>
      )}
      {all.being_read.length > 0 && (
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "flex", flexWrap: "wrap", columnGap: 2 }}>
          {all.being_read.map((home) => (
            <li key={home.id}>
              <Button component={RouterLink} to={`/h/${home.id}/overview`}>
                {home.name}
              </Button>
            </li>
          ))}
        </Box>
      )}
      {all.homes.length === 0 && all.damaged.length === 0 && all.being_read.length === 0 && (
        <Typography>No home yet. Name the first one below.</Typography>
      )}
      {madeUp.length > 0 && (
        <>
          <Typography variant="h2">To practice on</Typography>
          <Rows homes={madeUp} />
        </>
      )}
      {archive.length > 0 && (
        <Fold onPage label={`the archive (${archive.length})`}>
          <Rows homes={archive} />
        </Fold>
      )}
      {all.moved.length > 0 && (
        <Fold onPage label={`homes that have moved (${all.moved.length})`}>
          <MovedHomes homes={all.moved} />
        </Fold>
      )}
      {all.deleted.length > 0 && (
        <Fold onPage label={`deleted homes (${all.deleted.length})`}>
          <DeletedHomes homes={all.deleted} />
        </Fold>
      )}
    </>
  );
}

function Rows({ homes }: { homes: readonly HomeInList[] }) {
  if (homes.length === 0) return null;
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1.5 }}>
      {homes.map((home) => (
        <HomeRow key={home.id} home={home} />
      ))}
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
