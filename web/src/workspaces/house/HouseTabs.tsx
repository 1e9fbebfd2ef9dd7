import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { Link } from "react-router";

const VIEWS = [
  ["plan", "Plan", ""],
  ["walk", "Walk", "/walk"],
  ["list", "List", "/list"],
] as const;

/** The three ways to see the house. */
export function HouseTabs({ home, shown }: { home: string; shown: (typeof VIEWS)[number][0] }) {
  return (
    <Stack direction="row" spacing={1} component="nav" aria-label="Views of the house" sx={{ mb: 1.5 }}>
      {VIEWS.map(([view, words, path]) => (
        <Button
          key={view}
          component={Link}
          to={`/h/${home}/house${path}`}
          variant={view === shown ? "outlined" : "text"}
          color="inherit"
          aria-current={view === shown ? "page" : undefined}
        >
          {words}
        </Button>
      ))}
    </Stack>
  );
}
