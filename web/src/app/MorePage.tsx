import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useColorScheme } from "@mui/material/styles";
import { lazy, Suspense, useState, type ReactNode } from "react";
import { Link } from "react-router";
import type { HomeOverview } from "../api/client";
import { Choice } from "../parts/Choice";
import { hidden } from "../parts/hidden";
import { MODES } from "./modes";
import { People } from "./People";
import { testsNow } from "./testsNow";
import { tone } from "./theme";
import { useSignOut } from "./useSignOut";
import { useThisHome } from "./useThisHome";
import { WORKSPACES } from "./workspaces";

// Loaded when it is first asked for.
const FindDialog = lazy(async () => ({ default: (await import("./FindDialog")).FindDialog }));

/** On a phone: every workspace that is not in the bottom bar, on a fingerpost, and what concerns this device. */
export function MorePage() {
  const home = useThisHome();
  const { mode, setMode } = useColorScheme();
  const [finding, setFinding] = useState(false);
  const signOut = useSignOut();
  const rest = WORKSPACES.filter((workspace) => !workspace.bar);
  return (
    <Stack spacing={2}>
      <h1 style={hidden}>More</h1>
      <Button
        variant="outlined"
        fullWidth
        onClick={() => setFinding(true)}
        sx={{ justifyContent: "flex-start", minHeight: 56 }}
      >
        Find a room, a point, a number
      </Button>
      <Box component="nav" aria-label="Other workspaces" sx={{ position: "relative", py: 1.5 }}>
        <Box
          aria-hidden="true"
          sx={{
            position: "absolute",
            left: "calc(50% - 24px)",
            width: 48,
            top: 0,
            bottom: 0,
            bgcolor: tone("bar"),
            clipPath: "polygon(50% 0, 100% 20px, 100% 100%, 0 100%, 0 20px)",
          }}
        />
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", columnGap: "48px", rowGap: 1, pt: 2, pb: 1 }}>
          {rest.map((workspace, n) => (
            <Blade
              key={workspace.path}
              to={`/h/${home.id}/${workspace.path}`}
              name={workspace.name}
              says={about(home)[workspace.path]}
              left={n % 2 === 0}
            />
          ))}
        </Box>
      </Box>
      <Line words="Tests that come round">
        <Button component={Link} to={`/h/${home.id}/tests`} color="inherit" data-testid="tests-due">
          {testsNow(home)}
        </Button>
      </Line>
      <Line words="Who helps">
        <People home={home.id} />
      </Line>
      <Line words="Colors">
        <Choice label="Colors of this device" value={mode ?? "system"} options={MODES} onChange={setMode} />
      </Line>
      <Line words="All homes">
        <Button component={Link} to="/" color="inherit">
          Open another
        </Button>
      </Line>
      {signOut && (
        <Line words="This device">
          <Button color="inherit" onClick={signOut}>
            Sign out
          </Button>
        </Line>
      )}
      {finding && (
        <Suspense fallback={null}>
          <FindDialog home={home.id} onClose={() => setFinding(false)} />
        </Suspense>
      )}
    </Stack>
  );
}

/** How each of them stands, in a few words. */
function about(home: HomeOverview): Partial<Record<string, string>> {
  const proven = home.points.filter((point) => point.known.verdict === "proven").length;
  return {
    house: `${home.points.length - proven} not proven`,
    work: "ways and job sheets",
    directory: cardInTheDoor(home) ?? `${proven} of ${home.points.length} points`,
    practice: home.practice ? "a made-up house" : "made-up houses",
    logbook: home.seq === 1 ? "1 line" : `${home.seq} lines`,
  };
}

/** What is wrong with the cards that hang, where something is: what misleads goes first. */
function cardInTheDoor({ card_lines_mislead: misleads, card_lines_wrong: wrong }: HomeOverview): string | undefined {
  if (misleads > 0) return `the card in the door misleads: ${misleads === 1 ? "1 line" : `${misleads} lines`}`;
  if (wrong > 0) return `${wrong === 1 ? "1 line" : `${wrong} lines`} of the card in the door wrong`;
  return undefined;
}

function Blade({ to, name, says, left }: { to: string; name: string; says: string | undefined; left: boolean }) {
  const shape = left
    ? "polygon(16px 0, 100% 0, 100% 100%, 16px 100%, 0 50%)"
    : "polygon(0 0, calc(100% - 16px) 0, 100% 50%, calc(100% - 16px) 100%, 0 100%)";
  return (
    <Box
      component={Link}
      to={to}
      sx={{ display: "block", bgcolor: tone("ink"), clipPath: shape, p: "2px", textDecoration: "none" }}
    >
      <Box
        sx={{
          bgcolor: tone("card"),
          clipPath: shape,
          minHeight: 76,
          pl: left ? 3 : 2,
          pr: left ? 2 : 3,
          display: "flex",
          flexDirection: "column",
          justifyContent: "center",
          textAlign: left ? "right" : "left",
          color: tone("ink"),
        }}
      >
        <Typography component="span" variant="h2">
          {name}
        </Typography>
        <Typography component="span" variant="body2" color="text.secondary">
          {says}
        </Typography>
      </Box>
    </Box>
  );
}

function Line({ words, children }: { words: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        justifyContent: "space-between",
        gap: 1,
        borderTop: `1px solid ${tone("rule")}`,
        pt: 1,
      }}
    >
      <Typography variant="h3" component="h2">
        {words}
      </Typography>
      {children}
    </Box>
  );
}
