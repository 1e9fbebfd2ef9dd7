import Box from "@mui/material/Box";
import Stack from "@mui/material/Stack";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import type { HomeOverview, TraceView } from "../../api/client";
import { useTrace } from "../../api/queries";
import { useThisHome } from "../../app/useThisHome";
import { Loaded } from "../../parts/Loaded";
import { Handles, Instruments } from "../practice/Instruments";
import { AskHow } from "./AskHow";
import { LeftOpen } from "./LeftOpen";
import { PanelSide } from "./PanelSide";
import { ProgressSide } from "./ProgressSide";
import { hidden } from "../../parts/hidden";
import { MethodChoice } from "./MethodChoice";
import { WalkingSide } from "./WalkingSide";
import { pressMain, useKeys } from "../../parts/useKeys";
import { useNewStep } from "../../parts/useNewStep";
import { LastLook } from "./LastLook";
import { useLooks } from "./useLooks";

/** Which breaker feeds what: the panel side, the walking side, how far it is. */
export function TracePage() {
  const home = useThisHome();
  const trace = useTrace(home.id);
  return (
    <Loaded query={trace} what="trace">
      {(view: TraceView) => (
        <>
          <h1 style={hidden}>Trace</h1>
          <Trace home={home} view={view} />
        </>
      )}
    </Loaded>
  );
}

function Trace({ home, view }: { home: HomeOverview; view: TraceView }) {
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const rooms = "rooms" in view.next ? view.next.rooms : [];
  const listen = view.walk.looking?.listen === true;
  const looks = useLooks(home.id, { seq: view.seq, lastTurn: view.last_turn, rooms, listen });
  useNewStep([view.panel, view.walk]);
  useKeys({ u: looks.last ? looks.strikeLast : undefined, Enter: pressMain });
  if (view.asks_setup) {
    return <AskHow home={home.id} setup={view.setup} onBegin={(way) => looks.act([{ kind: "trace_set", way }])} />;
  }
  // In a made-up house the instruments lie beside the point that is asked for.
  const kit = home.practice && <Instruments home={home} view={view} looks={looks} />;
  const walking = <WalkingSide home={home} view={view} looks={looks} wide={wide} kit={kit} />;
  const panel = (
    <Stack spacing={2}>
      <PanelSide home={home} view={view} looks={looks} />
      {home.practice && view.panel.switches.length > 0 && <Handles home={home.id} seq={view.seq} />}
    </Stack>
  );
  const progress = (
    <Stack spacing={2}>
      <ProgressSide home={home} view={view} />
      <MethodChoice home={home.id} setup={view.setup} onSetup={(way) => looks.act([{ kind: "trace_set", way }])} />
    </Stack>
  );
  const left = view.next.step === "done" && <LeftOpen home={home} left={view.next.open} looks={looks} />;
  if (!wide) {
    const walkingFirst = view.walk.weight === "loud";
    return (
      <Stack spacing={2}>
        {walkingFirst ? walking : panel}
        {(view.next.step === "follow_tone" || view.next.step === "watch") && kit}
        {!(view.walk.looking && looks.current) && <LastLook looks={looks} />}
        {walkingFirst ? panel : walking}
        {left}
        {progress}
      </Stack>
    );
  }
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2.5,
        gridTemplateColumns: "minmax(0, 330px) minmax(0, 1fr) 250px",
        alignItems: "start",
      }}
    >
      {panel}
      <Stack spacing={1}>
        <LastLook looks={looks} />
        {kit}
        {walking}
        {left}
      </Stack>
      {progress}
    </Box>
  );
}
