import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { ReactNode } from "react";
import type { Evidence, Fact, HomeOverview } from "../api/client";
import { useEvidence } from "../api/queries";
import { useRecord } from "../api/record";
import { tone } from "./theme";
import { useAct } from "./useAct";
import { useNotice } from "./useNotice";
import { DeviceActs } from "./DeviceActs";
import { PointWork } from "./PointWork";
import { Loaded } from "../parts/Loaded";
import { when } from "../parts/when";

const ROLE = {
  proves: "proves it",
  agrees: "agrees",
  disagrees: "disagrees",
  set_aside: "set aside: it was out for another reason",
  between: "neither lit nor dark",
  doubted: "not counted",
} as const;

/** Every look at a point and what follows, for somebody who doubts. */
export function EvidenceDialog({ home, point, onClose }: { home: HomeOverview; point: string; onClose: () => void }) {
  const evidence = useEvidence(home.id, point);
  const what = home.points.find((p) => p.id === point);
  const room = home.rooms.find((r) => r.id === what?.room)?.name ?? "";
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="evidence-title">
      <DialogTitle id="evidence-title">
        {room}, {what?.name}
      </DialogTitle>
      <DialogContent>
        <Loaded query={evidence} what="evidence">
          {(data: Evidence) => <EvidenceShown evidence={data} home={home} />}
        </Loaded>
        <DeviceActs home={home} point={point} />
      </DialogContent>
      <DialogActions>
        <Button component={Link} to={`/h/${home.id}/trips?point=${point}`} color="inherit">
          It does not work
        </Button>
        <PointWork home={home} point={point} />
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

/** What else could explain the lines, the likeliest first. */
function Stories({ stories }: { stories: string[] }) {
  if (stories.length === 0) return null;
  return (
    <Box component="section" aria-label="What could fool this?" sx={{ mb: 2 }} data-testid="stories">
      <Typography variant="h3" component="h3">
        What could fool this?
      </Typography>
      <Box component="ul" sx={{ my: 0.5, pl: 2.5 }}>
        {stories.map((story) => (
          <li key={story}>{story}</li>
        ))}
      </Box>
    </Box>
  );
}

function EvidenceShown({ evidence, home }: { evidence: Evidence; home: HomeOverview }) {
  const record = useRecord(home.id);
  const act = useAct(home.id);
  const say = useNotice();
  return (
    <>
      <Typography sx={{ mb: 2 }} data-testid="because">
        {evidence.because}
      </Typography>
      <Stories stories={evidence.stories} />
      <Offer facts={evidence.split} words="Enter its other half" onTake={act}>
        The halves of a receptacle can be fed by two breakers, where the tab between them was broken off. Entered as two
        points, both are traced anew; the looks so far are struck out, because nobody knows at which half they were.
        Until both halves are proven dead, treat the box as live: it may take two breakers.
      </Offer>
      <Offer facts={evidence.neutral} words="They share a neutral" onTake={act}>
        The halves of this receptacle are on two breakers. Mostly one cable feeds such a box, with two hots and one
        neutral that they share: with one breaker off, its white wire may carry the other’s current. Switch off both
        before the box is opened. An electrician sees it there, or at the panel.
      </Offer>
      {evidence.lines.length > 0 && (
        <Box component="ol" aria-label="Every look" sx={{ listStyle: "none", m: 0, p: 0 }}>
          {evidence.lines.map((line) => (
            <Box
              component="li"
              key={line.line}
              data-role={line.role}
              sx={{ display: "flex", gap: 1, alignItems: "center", borderTop: `1px solid ${tone("rule")}`, py: 0.75 }}
            >
              <Box sx={{ flex: 1 }}>
                <Typography>
                  <strong>
                    {[line.change ?? line.seen, line.volts != null && `${line.volts} V`].filter(Boolean).join(", ")}
                  </strong>{" "}
                  with {line.off.length === 0 ? "everything on" : `${line.off.join(", ")} off`}
                </Typography>
                <Typography variant="body2" color={line.role === "disagrees" ? "error" : "text.secondary"}>
                  {ROLE[line.role]}
                  {line.not_counted != null && `: ${line.not_counted}`}. {when(line.at)}, {line.by}
                </Typography>
              </Box>
              <Button
                color="inherit"
                size="small"
                sx={{ flexShrink: 0 }}
                onClick={() => void record([{ kind: "line_struck", line: line.line }]).catch(say.problem)}
              >
                Strike out
              </Button>
            </Box>
          ))}
        </Box>
      )}
    </>
  );
}

interface OfferProps {
  facts: Fact[];
  words: string;
  onTake: (facts: Fact[]) => Promise<boolean>;
  children: ReactNode;
}

/** What the evidence suggests to record. */
function Offer({ facts, words, onTake, children }: OfferProps) {
  if (facts.length === 0) return null;
  return (
    <Alert severity="warning" sx={{ mb: 2 }}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {children}
      </Typography>
      <Button variant="outlined" size="small" onClick={() => void onTake(facts)}>
        {words}
      </Button>
    </Alert>
  );
}
