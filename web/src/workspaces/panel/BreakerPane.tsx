import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { BreakerView, Fact, HomeOverview, PanelView } from "../../api/client";
import { useRecord } from "../../api/record";
import { useNotice } from "../../app/useNotice";
import { breakerOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { EvidenceDialog } from "../../app/EvidenceDialog";
import { PointLine } from "../../parts/PointLine";
import { BreakerChanges } from "./BreakerChanges";
import { BreakerForm } from "./BreakerForm";
import { wireWords } from "./wires";
import { legsInWords } from "../../parts/words";

interface Props {
  home: HomeOverview;
  post: PanelView;
  blade: BreakerView;
  onMove: () => void;
}

const POLES = ["", "Single pole", "Two-pole", "Three-pole"];
const HOUSING = { full: "", tandem: ", half of a tandem", quad: ", in a quad", slim: ", slim" } as const;

/** One breaker: what it is, what it feeds, where its handle stands. */
export function BreakerPane({ home, post, blade, onMove }: Props) {
  const record = useRecord(home.id);
  const say = useNotice();
  const [mode, setMode] = useState<"look" | "edit" | "keep">("look");
  const [reason, setReason] = useState("");
  const [evidence, setEvidence] = useState<string | null>(null);
  const act = (facts: Fact[]) => record(facts).then(() => setMode("look"), say.problem);
  const points = home.points.filter((p) => p.known.verdict === "proven" && p.known.breaker === blade.breaker);
  const maybe = home.points.filter((p) => p.known.verdict === "open" && p.known.possible.includes(blade.breaker));
  const poles = blade.poles.length;
  const tied = poles > 1 && blade.details.tie === "handle" ? ", handles tied" : "";
  const partners = blade.shares_neutral_with.filter((id) => id !== blade.breaker);
  const [fed] = blade.feeds;
  const facts = [
    `${POLES[poles] ?? ""}${HOUSING[blade.housing]}${tied} · ${blade.amps} A · ${legsInWords(blade.legs)}`,
    poles > 1 ? `${blade.volts} V between its poles` : `${blade.volts} V to neutral`,
    blade.wire ? `${wireWords(blade.wire)}, good for ${blade.wire_allows ?? 0} A` : "wire not read",
    ...(partners.length > 0
      ? [`shares a neutral with ${partners.map((id) => breakerOf(home, id)?.tag ?? "?").join(" and ")}`]
      : blade.shares_neutral_with.length > 0
        ? ["its poles share a neutral"]
        : []),
  ];
  if (mode === "edit") {
    return (
      <Block title={`Breaker ${blade.number}`}>
        <BreakerForm
          home={home}
          panel={post.panel.id}
          blade={blade}
          number={blade.number}
          onDone={() => setMode("look")}
          onCancel={() => setMode("look")}
        />
      </Block>
    );
  }
  return (
    <Block>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", mb: 1 }}>
        <Tag text={blade.number} />
        <Typography variant="h2" data-testid="breaker-title">
          {fed
            ? `Feeds ${fed.name}`
            : blade.wording || (blade.claim ? `“${blade.claim}”, not proven` : "Not traced yet")}
        </Typography>
      </Stack>
      <Typography variant="body2" color="text.secondary" data-testid="breaker-facts">
        {facts.join(" · ")} · {blade.place}
      </Typography>
      {fed && (
        <Button component={Link} to={`/h/${home.id}/panel/${fed.panel}`} variant="outlined" sx={{ mt: 1 }}>
          Go to {fed.name}
        </Button>
      )}
      {blade.kept_behind.length > 0 && (
        <Typography variant="body2" color="error" sx={{ mt: 1, fontWeight: 700 }}>
          Never switch it off: behind it {blade.kept_behind.join(", ")} must stay on.
        </Typography>
      )}
      {blade.kept === "on" && (
        <Typography variant="body2" sx={{ mt: 1, fontWeight: 700 }}>
          Must stay on: {blade.kept_reason}
        </Typography>
      )}
      {blade.kept === "off" && (
        <Typography variant="body2" sx={{ mt: 1, fontWeight: 700 }}>
          Left off: {blade.kept_reason}
        </Typography>
      )}
      {blade.state === "tripped" && (
        <Typography variant="body2" sx={{ mt: 1 }} color="error">
          Tripped. Heat, smell or water: leave it off and call an electrician. Else unplug what is on it, push it fully
          off, then on, once. If it trips again at once, leave it off: the fault is on the circuit.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, my: 1.5 }}>
        {points.map((point) => (
          <PointLine key={point.id} point={point} home={home} onOpen={() => setEvidence(point.id)} />
        ))}
        {maybe.map((point) => (
          <PointLine key={point.id} point={point} home={home} onOpen={() => setEvidence(point.id)} />
        ))}
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.5 }}>
        Proven on it: {blade.proven}. May be on it: {blade.possible}.{" "}
        {blade.claim && `The old card says “${blade.claim}”.`}
      </Typography>
      {mode === "keep" ? (
        <Stack spacing={1.5}>
          <TextField
            label="Why must it stay on?"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            autoFocus
          />
          <Stack direction="row" spacing={1}>
            <Button
              variant="contained"
              onClick={() =>
                void act([{ kind: "breaker_kept", breaker: blade.breaker, kept: "on", reason: reason || "as said" }])
              }
            >
              It must stay on
            </Button>
            <Button color="inherit" onClick={() => setMode("look")}>
              Back
            </Button>
          </Stack>
        </Stack>
      ) : (
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
          <Button variant="outlined" onClick={() => setMode("edit")}>
            Edit
          </Button>
          <BreakerChanges home={home} post={post} blade={blade} onMove={onMove} />
          {(["on", "off", "tripped"] as const)
            .filter((to) => to !== blade.state && !(to !== "on" && blade.kept === "on" && to === "off"))
            .map((to) => (
              <Button
                key={to}
                variant="outlined"
                onClick={() => void act([{ kind: "breaker_switched", breaker: blade.breaker, to }])}
              >
                {to === "tripped" ? "It has tripped" : `It is ${to} now`}
              </Button>
            ))}
          {blade.state === "off" && !blade.kept && (
            <Button
              variant="outlined"
              onClick={() =>
                void act([{ kind: "breaker_kept", breaker: blade.breaker, kept: "off", reason: "left off" }])
              }
            >
              Leave it off
            </Button>
          )}
          {blade.kept ? (
            <Button
              variant="outlined"
              onClick={() => void act([{ kind: "breaker_kept", breaker: blade.breaker, reason: "" }])}
            >
              {blade.kept === "on" ? "It may be off again" : "It is no longer left off"}
            </Button>
          ) : (
            blade.state === "on" && (
              <Button variant="outlined" onClick={() => setMode("keep")}>
                Must stay on
              </Button>
            )
          )}
          <Button
            color="error"
            variant="outlined"
            onClick={() => void act([{ kind: "breaker_removed", breaker: blade.breaker }])}
          >
            Take out of the record
          </Button>
        </Stack>
      )}
      {evidence !== null && <EvidenceDialog home={home} point={evidence} onClose={() => setEvidence(null)} />}
    </Block>
  );
}
