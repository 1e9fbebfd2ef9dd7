import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { TripsView, TroubleLine } from "../../api/client";
import { useTrips } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { Fold } from "../../parts/Fold";
import { Loaded } from "../../parts/Loaded";
import { dateOf, when } from "../../parts/when";
import { TellForm } from "./TellForm";

/** Something is dark, flickers, or a breaker tripped: say it here; what is and was wrong. */
export function TripsPage() {
  const home = useThisHome();
  const trips = useTrips(home.id);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 2 }}>
        What is wrong?
      </Typography>
      <Box sx={{ display: "grid", gap: 3 }}>
        <TellForm home={home} />
        <Loaded query={trips} what="trips">
          {(view: TripsView) => <Known home={home.id} view={view} />}
        </Loaded>
      </Box>
    </>
  );
}

function Known({ home, view }: { home: string; view: TripsView }) {
  const open = view.troubles.filter((one) => !one.over);
  const broken = view.troubles.filter((one) => one.to_be_mended);
  const over = view.troubles.filter((one) => one.over && !one.to_be_mended);
  return (
    <Box sx={{ display: "grid", gap: 2, maxWidth: 720 }}>
      {open.length > 0 && (
        <Block title="Not found out yet">
          <Troubles home={home} troubles={open} />
        </Block>
      )}
      {broken.length > 0 && (
        <Block title="Found, and not mended">
          <Troubles home={home} troubles={broken} />
        </Block>
      )}
      {view.tripped.length > 0 && (
        <Block title="Breakers that tripped">
          <Box component="ul" data-testid="tripped" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 1 }}>
            {view.tripped.map((one) => (
              <Box component="li" key={one.breaker} sx={{ display: "flex", gap: 1.5, alignItems: "baseline" }}>
                <Tag text={one.number} />
                <Typography component="span">
                  {one.times.length === 1 ? "once" : `${one.times.length} times`}: {one.times.map(dateOf).join(", ")}
                </Typography>
              </Box>
            ))}
          </Box>
        </Block>
      )}
      {over.length > 0 && (
        <Fold label={`what was wrong before (${over.length})`} onPage>
          <Troubles home={home} troubles={over} />
        </Fold>
      )}
      <Numbers home={home} view={view} />
    </Box>
  );
}

function Troubles({ home, troubles }: { home: string; troubles: readonly TroubleLine[] }) {
  return (
    <Box component="ul" data-testid="troubles" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 0.5 }}>
      {troubles.map((one) => (
        <li key={one.trouble}>
          <Button
            component={Link}
            to={`/h/${home}/trips/${one.trouble}`}
            color="inherit"
            sx={{ minHeight: 44, textAlign: "left", justifyContent: "start" }}
          >
            <span>
              <b>{one.title}</b>. {one.said}. {when(one.at)}, {one.by}.
            </span>
          </Button>
        </li>
      ))}
    </Box>
  );
}

/** Whom to call: kept before it is needed, for the page that covers everything. */
function Numbers({ home, view }: { home: string; view: TripsView }) {
  const act = useAct(home);
  const [utility, setUtility] = useState(view.utility);
  const [electrician, setElectrician] = useState(view.electrician);
  const kept = view.utility !== "" || view.electrician !== "";
  return (
    <Block title="Whom to call">
      <Box
        component="form"
        aria-label="Whom to call"
        onSubmit={(event) => {
          event.preventDefault();
          void act([{ kind: "numbers_kept", utility, electrician }], "Kept.");
        }}
        sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr auto" }, alignItems: "start" }}
      >
        <TextField
          label="The utility"
          type="tel"
          value={utility}
          onChange={(event) => setUtility(event.target.value)}
        />
        <TextField
          label="An electrician"
          type="tel"
          value={electrician}
          onChange={(event) => setElectrician(event.target.value)}
        />
        <Button type="submit" variant="outlined" color="inherit" sx={{ minHeight: 56 }}>
          {kept ? "Keep these" : "Keep"}
        </Button>
      </Box>
    </Block>
  );
}
