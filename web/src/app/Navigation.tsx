import Box from "@mui/material/Box";
import { NavLink } from "react-router";
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

export function BottomBar({ home }: { home: string }) {
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
        gridTemplateColumns: `repeat(${WORKSPACES.length}, 1fr)`,
        bgcolor: tone("rail"),
        borderTop: `1px solid ${tone("rule")}`,
        pb: "env(safe-area-inset-bottom)",
        zIndex: 10,
      }}
    >
      {WORKSPACES.map((workspace) => (
        <Box
          key={workspace.path}
          component={NavLink}
          to={`/h/${home}/${workspace.path}`}
          sx={{
            ...plain,
            fontSize: "0.82rem",
            minHeight: 56,
            display: "flex",
            alignItems: "center",
            justifyContent: "center",
            borderTop: "4px solid transparent",
            "&.active": { bgcolor: tone("paper"), borderTopColor: tone("blaze") },
          }}
        >
          {workspace.name}
        </Box>
      ))}
    </Box>
  );
}
