import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { HomeOverview, KnownPoint, TraceView } from "../../api/client";
import { tone } from "../../app/theme";
import { EvidenceDialog } from "../../app/EvidenceDialog";
import { useAct } from "../../app/useAct";
import { PointLine } from "../../parts/PointLine";

const FILL = {
  proven: tone("moss"),
  by_exclusion: tone("ochre"),
  contradictory: tone("danger"),
  out: tone("dark"),
  open: `repeating-linear-gradient(135deg, ${tone("rule")} 0 4px, transparent 4px 6px)`,
} as const;

/** How far the trace is, and what is doubtful. */
export function ProgressSide({ home, view }: { home: HomeOverview; view: TraceView }) {
  const [evidence, setEvidence] = useState<string | null>(null);
  const act = useAct(home.id);
  const { progress } = view;
  const wrongHandle = view.off.length > 0 && typeof view.last_turn === "object" ? view.last_turn.move : null;
  const list = (ids: string[]) => home.points.filter((p) => ids.includes(p.id));
  const unsure = home.points.filter((p) => p.known.verdict === "open" && p.known.unsure);
  return (
    <Stack spacing={2} component="section" aria-label="How far it is">
      <div>
        <Typography variant="h2" data-testid="progress">
          {progress.proven} of {progress.points} proven
        </Typography>
        <Box aria-hidden="true" sx={{ display: "flex", flexWrap: "wrap", gap: "4px", my: 1.5 }}>
          {home.points.map((point) => (
            <Box
              key={point.id}
              sx={{
                width: 15,
                height: 15,
                borderRadius: "2px",
                background: FILL[point.known.verdict],
                border: `1px solid ${tone("rule")}`,
              }}
            />
          ))}
        </Box>
        <Typography variant="body2" color="text.secondary">
          {progress.open} open, {progress.contradictory} with looks that disagree, {progress.out} dark with everything
          on. {view.to_switch.length === 1 ? "1 breaker" : `${view.to_switch.length} breakers`} may still tell
          something.
        </Typography>
      </div>
      <Doubtful title="Looks disagree" points={list(view.contradictory)} home={home} onOpen={setEvidence} />
      <Doubtful title="Dark with everything on" points={list(view.out)} home={home} onOpen={setEvidence} />
      <Doubtful title="Dark with one breaker, not sure yet" points={unsure} home={home} onOpen={setEvidence} />
      <div>
        <Button
          variant="outlined"
          color="inherit"
          onClick={() =>
            void act([{ kind: "power_blinked", note: "" }], "Noted: what was dark just now does not count.")
          }
        >
          The power blinked
        </Button>
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          The house had no power for a moment? What was dark in the last minutes then does not count, and is asked for
          again.
        </Typography>
      </div>
      {wrongHandle !== null && (
        <div>
          <Button
            variant="outlined"
            color="inherit"
            onClick={() =>
              void act(
                [{ kind: "wrong_handle", line: wrongHandle }],
                "Noted: it counts as not moved. Switch on whatever is off by mistake; then go on.",
              )
            }
          >
            It was another handle
          </Button>
          <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
            Was the handle that moved last not the one that the step named? What was seen under it then does not count.
          </Typography>
        </div>
      )}
      {evidence !== null && <EvidenceDialog home={home} point={evidence} onClose={() => setEvidence(null)} />}
    </Stack>
  );
}

interface DoubtfulProps {
  title: string;
  points: KnownPoint[];
  home: HomeOverview;
  onOpen: (point: string) => void;
}

function Doubtful({ title, points, home, onOpen }: DoubtfulProps) {
  if (points.length === 0) return null;
  return (
    <div>
      <Typography variant="h2">{title}</Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {points.map((point) => (
          <PointLine key={point.id} point={point} home={home} onOpen={() => onOpen(point.id)}>
            {point.known.verdict === "contradictory" && (
              <Typography variant="body2" sx={{ mb: 1 }} data-testid="contradiction">
                {point.known.because}
              </Typography>
            )}
          </PointLine>
        ))}
      </Box>
    </div>
  );
}
