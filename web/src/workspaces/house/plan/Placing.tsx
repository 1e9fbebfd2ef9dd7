import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, OpeningKind, PlanFloor } from "../../../api/client";
import { LISTS } from "../../../api/generated/lists";
import { tone } from "../../../app/theme";

/** What the next tap on the plan places. */
export type Tool =
  | { tool: "point"; what: Placeable }
  | { tool: "opening"; kind: OpeningKind; width: number }
  | { tool: "panel"; panel: string }
  | { tool: "place"; point: string };

type Placeable = (typeof LISTS.placeable)[number];

interface Props {
  home: HomeOverview;
  floor: PlanFloor;
  tool: Tool | null;
  onTool: (tool: Tool | null) => void;
  narrow: boolean;
  /** Points of drawn rooms that have no place yet. */
  unplaced: string[];
}

/** The row of what can be tapped onto the plan. It stays until it is put away: the next tap places the next one. */
export function Placing({ home, floor, tool, onTool, narrow, unplaced }: Props) {
  const [all, setAll] = useState(false);
  const panels = home.panels.map((view) => view.panel);
  const things = all ? LISTS.placeable : LISTS.placeable.slice(0, narrow ? 3 : 5);
  const button = (key: string, words: string, next: Tool, on: boolean) => (
    <Button
      key={key}
      variant={on ? "contained" : "outlined"}
      aria-pressed={on}
      onClick={() => onTool(on ? null : next)}
      sx={{ px: 1.5 }}
    >
      {words}
    </Button>
  );
  const first = unplaced[0];
  const waiting = home.points.find((p) => p.id === first);
  return (
    <Stack spacing={1} sx={{ mb: 1 }}>
      <Stack
        direction="row"
        useFlexGap
        spacing={1}
        sx={{ flexWrap: "wrap" }}
        role="group"
        aria-label="Tap onto the plan"
      >
        {things.map((what) =>
          button(what.key, what.words, { tool: "point", what }, tool?.tool === "point" && tool.what.key === what.key),
        )}
        {all &&
          LISTS.openings.map(({ kind, words, width }) =>
            button(kind, words, { tool: "opening", kind, width }, tool?.tool === "opening" && tool.kind === kind),
          )}
        {all &&
          panels.map((panel) =>
            button(
              panel.id,
              `Hang ${panel.name}`,
              { tool: "panel", panel: panel.id },
              tool?.tool === "panel" && tool.panel === panel.id,
            ),
          )}
        <Button color="inherit" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? "Fewer" : "More to place"}
        </Button>
      </Stack>
      {tool !== null && (
        <Stack
          direction="row"
          spacing={1}
          sx={{ alignItems: "center", borderLeft: `5px solid ${tone("blaze")}`, pl: 1.5 }}
          data-testid="placing"
        >
          <Typography sx={{ flex: 1 }}>{wordsFor(tool, home)}</Typography>
          <Button variant="outlined" onClick={() => onTool(null)}>
            Done placing
          </Button>
        </Stack>
      )}
      {tool === null && waiting && (
        <Stack direction="row" spacing={1} sx={{ alignItems: "center" }}>
          <Typography sx={{ flex: 1 }} color="text.secondary">
            {unplaced.length === 1 ? "1 point has" : `${unplaced.length} points have`} no place on {floor.name} yet.
          </Typography>
          <Button variant="outlined" onClick={() => onTool({ tool: "place", point: waiting.id })}>
            Place {waiting.name}
          </Button>
        </Stack>
      )}
    </Stack>
  );
}

function wordsFor(tool: Tool, home: HomeOverview): string {
  switch (tool.tool) {
    case "point":
      return tool.what.volts === 240
        ? "Tap where it is. A plug-in tester or tone sender never goes on 240 V."
        : "Tap where it is; the next tap places the next one.";
    case "opening":
      return "Tap the wall where it is.";
    case "panel":
      return "Tap the wall where the panel hangs.";
    case "place": {
      const point = home.points.find((p) => p.id === tool.point);
      const room = home.rooms.find((r) => r.id === point?.room);
      return `Tap where ${point?.name ?? "it"} of ${room?.name ?? "the room"} is.`;
    }
  }
}
