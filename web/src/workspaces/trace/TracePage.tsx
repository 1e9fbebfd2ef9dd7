import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useState } from "react";
import type { HomeOverview, School, TraceView } from "../../api/client";
import { useTrace } from "../../api/queries";
import { useThisHome } from "../../app/useThisHome";
import { Loaded } from "../../parts/Loaded";
import { PanelSide } from "./PanelSide";
import { ProgressSide } from "./ProgressSide";
import { SchoolChoice } from "./SchoolChoice";
import { WalkingSide } from "./WalkingSide";
import { useKeys } from "../../parts/useKeys";
import { useLooks, type Looks } from "./useLooks";

const SCHOOL_KEY = "wayfinder-school";
const ALONE_KEY = "wayfinder-alone";
const keptSchool = (): School => (localStorage.getItem(SCHOOL_KEY) === "several_off" ? "several_off" : "one_at_a_time");

/** Which breaker feeds what: the panel side, the walking side, how far it is. */
export function TracePage() {
  const home = useThisHome();
  const [school, setSchool] = useState<School>(keptSchool);
  const [alone, setAlone] = useState(localStorage.getItem(ALONE_KEY) === "yes");
  const trace = useTrace(home.id, school, alone);
  const choose = (next: School) => {
    localStorage.setItem(SCHOOL_KEY, next);
    setSchool(next);
  };
  const chooseAlone = (next: boolean) => {
    localStorage.setItem(ALONE_KEY, next ? "yes" : "no");
    setAlone(next);
  };
  return (
    <Loaded query={trace} what="trace">
      {(view: TraceView) => <Trace home={home} view={view} onSchool={choose} onAlone={chooseAlone} />}
    </Loaded>
  );
}

interface TraceProps {
  home: HomeOverview;
  view: TraceView;
  onSchool: (school: School) => void;
  onAlone: (alone: boolean) => void;
}

function Trace({ home, view, onSchool, onAlone }: TraceProps) {
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const looks = useLooks(home.id, view);
  useKeys({ u: looks.last ? looks.strikeLast : undefined });
  const walking = <WalkingSide home={home} view={view} looks={looks} wide={wide} />;
  const panel = <PanelSide home={home} view={view} looks={looks} />;
  const progress = (
    <Stack spacing={2}>
      <ProgressSide home={home} view={view} />
      <SchoolChoice home={home.id} view={view} onSchool={onSchool} onAlone={onAlone} />
    </Stack>
  );
  if (!wide) {
    const walkingFirst = ["look", "look_under", "see_all_lit", "see_one_lit_again"].includes(view.next.step);
    return (
      <Stack spacing={2}>
        {walkingFirst ? walking : panel}
        <LastLook looks={looks} />
        {walkingFirst ? panel : walking}
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
        {walking}
      </Stack>
      {progress}
    </Box>
  );
}

/** A slip is struck out at once, wherever the trace has gone meanwhile. */
function LastLook({ looks }: { looks: Looks }) {
  if (!looks.last) return null;
  return (
    <Button color="inherit" onClick={looks.strikeLast} sx={{ alignSelf: "flex-start" }}>
      Strike out: {looks.last.words}
    </Button>
  );
}
