import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import type { HomeOverview, Worked } from "../api/client";
import { useAct } from "./useAct";

/** What can be worked at a point beside its breaker: a GFCI's buttons, its switch, a new lamp. */
export function DeviceActs({ home, point }: { home: HomeOverview; point: string }) {
  const act = useAct(home.id);
  const known = home.points.find((p) => p.id === point);
  if (!known) return null;
  const acts: [Worked, string, string][] = [];
  if (known.details.gfci)
    acts.push(
      home.tripped.includes(point)
        ? ["reset", "Reset pressed", "reset"]
        : ["tripped", "Test pressed: it tripped", "tripped on purpose"],
    );
  if (known.details.gfci && !home.tripped.includes(point))
    acts.push([
      "found_tripped",
      "Found tripped, and reset",
      "found tripped; what was dark since it was last lit does not count",
    ]);
  if (known.kind === "light" && known.known.verdict === "out")
    acts.push(["switched_on", "Its switch is on now", "switched on"], ["new_lamp", "New lamp put in", "a new lamp"]);
  if (acts.length === 0) return null;
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1.5 }}>
      {acts.map(([worked, words, done]) => (
        <Button
          key={worked}
          color="inherit"
          variant="outlined"
          onClick={() => void act([{ kind: "device_worked", device: point, worked }], `${known.name}: ${done}`)}
        >
          {words}
        </Button>
      ))}
    </Stack>
  );
}
