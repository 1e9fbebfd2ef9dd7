import Box from "@mui/material/Box";
import { Link, NavLink, useLocation } from "react-router";
import { tone } from "./theme";
import { WORKSPACES } from "./workspaces";

const plain = { color: tone("ink"), textDecoration: "none", fontFamily: "Overpass Variable", fontWeight: 700 };

export function Rail({ home }: { home: string }) {
  return (
    <Box
      component="nav"
      aria-label="Workspaces"
      sx={{
        width: 148,
        bgcolor: tone("rail"),
        pt: 2,
        flexShrink: 0,
        position: "sticky",
        top: 56,
        height: "calc(100dvh - 56px)",
        alignSelf: "flex-start",
      }}
    >
      {WORKSPACES.map((workspace) => (
        <Box
          key={workspace.path}
          component={NavLink}
          to={`/h/${home}/${workspace.path}`}
          sx={{
            ...plain,
            display: "block",
            px: 2.5,
            py: 1.25,
            minHeight: 44,
            borderLeft: "5px solid transparent",
            "&.active": { bgcolor: tone("paper"), borderLeftColor: tone("blaze") },
            "&:hover": { bgcolor: tone("paper") },
          }}
        >
          {workspace.name}
        </Box>
      ))}
    </Box>
  );
}

/** On a phone: what is needed while walking, and the way to the rest. */
export function BottomBar({ home }: { home: string }) {
  const { pathname } = useLocation();
  const here = pathname.split("/")[3];
  const beyond = !WORKSPACES.some((workspace) => workspace.bar && workspace.path === here);
  const inBar: { path: string; name: string; here: boolean }[] = [
    ...WORKSPACES.filter((workspace) => workspace.bar).map(({ path, name }) => ({ path, name, here: path === here })),
    { path: "more", name: "More", here: beyond },
  ];
  return (
    <Box
      component="nav"
      aria-label="Workspaces"
      sx={{
        position: "fixed",
        bottom: 0,
        left: 0,
        right: 0,
        display: "grid",
        gridTemplateColumns: `repeat(${inBar.length}, 1fr)`,
        bgcolor: tone("rail"),
        borderTop: `1px solid ${tone("rule")}`,
        pb: "env(safe-area-inset-bottom)",
        zIndex: 10,
      }}
    >
      {inBar.map((entry) => (
        <Box
          key={entry.path}
          component={Link}
          to={`/h/${home}/${entry.path}`}
          aria-current={entry.here ? "page" : undefined}
          sx={{
            ...plain,
            fontSize: "0.9rem",
            minHeight: 56,
            display: "flex",
            alignItems: "center",
            justifyContent: "center",
            borderTop: "4px solid transparent",
            ...(entry.here && { bgcolor: tone("paper"), borderTopColor: tone("blaze") }),
          }}
        >
          {entry.name}
        </Box>
      ))}
    </Box>
  );
}
