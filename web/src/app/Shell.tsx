import Box from "@mui/material/Box";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { lazy, Suspense, useState } from "react";
import { Outlet, useMatches, useNavigate, useParams } from "react-router";
import { isGone, type HomeOverview } from "../api/client";
import { useHome, useStream } from "../api/queries";
import { Loaded } from "../parts/Loaded";
import { useKeys } from "../parts/useKeys";
import { BottomBar, Rail } from "./Navigation";
import { KeysDialog } from "./KeysDialog";
import { ClockBar } from "./ClockBar";
import { ConnectionBar } from "./ConnectionBar";
import { TopBar } from "./TopBar";
import { useAct } from "./useAct";
import { WORKSPACES } from "./workspaces";

// Loaded when it is first asked for.
const FindDialog = lazy(async () => ({ default: (await import("./FindDialog")).FindDialog }));

/** The frame around every workspace: what is off now on top, the workspaces at the left or below. */
export function Shell() {
  const { home = "" } = useParams();
  const [keysShown, setKeysShown] = useState(false);
  const [finding, setFinding] = useState(false);
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const navigate = useNavigate();
  const overview = useHome(home);
  const known = isGone(overview.error) ? undefined : overview.data;
  const live = useStream(home);
  const title = useTitle();
  useKeys({
    "?": () => setKeysShown(true),
    "/": () => setFinding(true),
    ...Object.fromEntries(WORKSPACES.map((w) => [`g ${w.key}`, () => void navigate(`/h/${home}/${w.path}`)])),
  });
  return (
    <Box sx={{ display: "flex", flexDirection: "column", minHeight: "100dvh" }}>
      <title>{[title, overview.data?.name, "Wayfinder"].filter(Boolean).join(" · ")}</title>
      <SkipLink />
      <TopBar home={known} onFind={() => setFinding(true)} onKeys={() => setKeysShown(true)} />
      <ConnectionBar live={live || overview.data === undefined} />
      {known && known.clocks.length > 0 && <HomeClocks home={known} />}
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        {wide && <Rail home={home} />}
        <Box
          component="main"
          id="main"
          tabIndex={-1}
          sx={{ outline: "none", flex: 1, minWidth: 0, p: { xs: 2, md: 3 }, pb: { xs: 12, md: 3 } }}
        >
          <Loaded query={overview} what="home">
            {(data: HomeOverview) => <Outlet context={data} />}
          </Loaded>
        </Box>
      </Box>
      {!wide && <BottomBar home={home} />}
      {finding && (
        <Suspense fallback={null}>
          <FindDialog home={home} onClose={() => setFinding(false)} />
        </Suspense>
      )}
      <KeysDialog open={keysShown} onClose={() => setKeysShown(false)} />
    </Box>
  );
}

function HomeClocks({ home }: { home: HomeOverview }) {
  const act = useAct(home.id);
  return <ClockBar home={home.id} clocks={home.clocks} onFacts={(facts) => void act(facts)} />;
}

/** What the screen that is shown is called. */
function useTitle(): string | undefined {
  const named = useMatches().findLast((match) => typeof match.handle === "string");
  return named?.handle as string | undefined;
}

/** For keys: past the bars to what the screen is about. */
function SkipLink() {
  return (
    <Box
      component="a"
      href="#main"
      onClick={(event) => {
        event.preventDefault();
        document.getElementById("main")?.focus();
      }}
      sx={{
        position: "absolute",
        left: 8,
        top: -80,
        zIndex: 30,
        px: 2,
        py: 1.5,
        bgcolor: "background.paper",
        color: "text.primary",
        "&:focus": { top: 6 },
      }}
    >
      Skip to the content
    </Box>
  );
}
