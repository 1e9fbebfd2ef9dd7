import Box from "@mui/material/Box";
import { Link } from "react-router";
import type { HomeOverview } from "../../api/client";
import { tone } from "../../app/theme";

/** The panels of the home, each as a small post with its letters. */
export function PanelTabs({ home, shown, to = "panel" }: { home: HomeOverview; shown: string; to?: string }) {
  return (
    <Box
      component="nav"
      aria-label="Panels"
      className="no-print"
      sx={{ display: "flex", gap: 1, flexWrap: "wrap", mb: 2 }}
    >
      {home.panels.map(({ panel, breakers }) => {
        const here = panel.id === shown;
        return (
          <Box
            key={panel.id}
            component={Link}
            to={`/h/${home.id}/${to}/${panel.id}`}
            aria-current={here ? "page" : undefined}
            sx={{
              display: "flex",
              alignItems: "center",
              minHeight: 44,
              gap: 1,
              px: 1.5,
              color: "text.primary",
              textDecoration: "none",
              border: `2px solid ${here ? tone("pine") : tone("rule")}`,
              borderRadius: 1,
              bgcolor: here ? "background.paper" : "transparent",
            }}
          >
            <Box
              component="span"
              sx={{
                bgcolor: tone("bar"),
                color: "#fff",
                fontFamily: "Overpass Variable",
                fontWeight: 700,
                px: 0.75,
                pt: 0.9,
                pb: 0.4,
                minWidth: 26,
                textAlign: "center",
                clipPath: "polygon(0 7px, 50% 0, 100% 7px, 100% 100%, 0 100%)",
              }}
            >
              {panel.tag || "1"}
            </Box>
            <span>{panel.name}</span>
            <Box component="span" sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
              {breakers.length}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
