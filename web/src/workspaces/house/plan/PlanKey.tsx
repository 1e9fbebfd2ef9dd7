import Box from "@mui/material/Box";
import type { Plan, PlanFloor, SymbolDrawing } from "../../../api/client";
import { PlanSymbol } from "../../../drawing/PlanSymbol";
import { Tag } from "../../../drawing/Tag";

/** What the symbols and tags of this floor mean, and its scale. */
export function PlanKey({ plan, floor }: { plan: Plan; floor: PlanFloor }) {
  const used = plan.symbols.filter((s) => floor.points.some((p) => p.symbol === s.symbol));
  if (used.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="What the symbols mean"
      sx={{ listStyle: "none", p: 0, my: 1.5, display: "flex", flexWrap: "wrap", gap: "4px 18px" }}
    >
      {used.map((drawing) => (
        <Box component="li" key={drawing.symbol} sx={{ display: "flex", alignItems: "center", gap: 0.7 }}>
          <svg width="40" height="40" viewBox="-240 -60 480 500" aria-hidden="true">
            <g transform={isHung(drawing) ? "translate(0 150)" : ""}>
              <PlanSymbol drawing={drawing} turn={0} />
            </g>
          </svg>
          <span>{drawing.words}</span>
        </Box>
      ))}
      <Box component="li" sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <Tag kind="proven" text="11" /> proven <Tag kind="likely" text="11 86 %" /> likely <Tag kind="open" text="?" />{" "}
        not proven: treat as live
      </Box>
    </Box>
  );
}

/** Its strokes lie around its own place, not below a wall. */
const isHung = (drawing: SymbolDrawing): boolean =>
  drawing.strokes.some((s) => (s.stroke === "circle" && s.at.y === 0) || (s.stroke === "line" && s.from.y < 0));
