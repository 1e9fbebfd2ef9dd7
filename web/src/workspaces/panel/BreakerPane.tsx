import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { BreakerView, Fact, HomeOverview, PanelView } from "../../api/client";
import { useAct } from "../../app/useAct";
import { breakerOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { AskFirst } from "../../parts/AskFirst";
import { Block } from "../../parts/Block";
import { EvidenceDialog } from "../../app/EvidenceDialog";
import { PointLine } from "../../parts/PointLine";
import { BreakerChanges } from "./BreakerChanges";
import { BreakerForm } from "./BreakerForm";
import { WorkOnIt } from "./WorkOnIt";
import { wireWords } from "./wires";
import { legsInWords } from "../../parts/words";

interface Props {
  home: HomeOverview;
  view: PanelView;
  breaker: BreakerView;
  onMove: () => void;
}

const POLES = ["", "Single pole", "Two-pole", "Three-pole"];
const HOUSING = { full: "", tandem: ", half of a tandem", quad: ", in a quad", slim: ", slim" } as const;

/** One breaker: what it is, what it feeds, where its handle stands. */
export function BreakerPane({ home, view, breaker, onMove }: Props) {
  const record = useAct(home.id);
  const [mode, setMode] = useState<"look" | "edit" | "keep">("look");
  const [reason, setReason] = useState("");
  const [evidence, setEvidence] = useState<string | null>(null);
  const act = (facts: Fact[], done?: string) =>
    record(facts, done).then((recorded) => {
      if (recorded) setMode("look");
    });
  const points = home.points.filter((p) => p.known.verdict === "proven" && p.known.breaker === breaker.breaker);
  const maybe = home.points.filter(
    ({ known }) =>
      (known.verdict === "open" && known.possible.includes(breaker.breaker)) ||
      (known.verdict === "by_exclusion" && known.breakers.includes(breaker.breaker)) ||
      // Nothing is sure of these: they may be on any.
      known.verdict === "contradictory" ||
      known.verdict === "out",
  );
  const poles = breaker.poles.length;
  const tied = poles > 1 && breaker.details.tie === "handle" ? ", handles tied" : "";
  const partners = breaker.shares_neutral_with.filter((id) => id !== breaker.breaker);
  const [fed] = breaker.feeds;
  const facts = [
    `${POLES[poles] ?? ""}${HOUSING[breaker.housing]}${tied} · ${breaker.amps} A · ${legsInWords(breaker.legs)}`,
    poles > 1 ? `${breaker.volts} V between its poles` : `${breaker.volts} V to neutral`,
    breaker.wire ? `${wireWords(breaker.wire)}, good for ${breaker.wire_allows ?? 0} A` : "wire not read",
    ...(partners.length > 0
      ? [`shares a neutral with ${partners.map((id) => breakerOf(home, id)?.tag ?? "?").join(" and ")}`]
      : breaker.shares_neutral_with.length > 0
        ? ["its poles share a neutral"]
        : []),
  ];
  if (mode === "edit") {
    return (
      <Block title={`Breaker ${breaker.number}`}>
        <BreakerForm
          home={home}
          panel={view.panel.id}
          breaker={breaker}
          number={breaker.number}
          onDone={() => setMode("look")}
          onCancel={() => setMode("look")}
        />
      </Block>
    );
  }
  return (
    <Block>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", mb: 1 }}>
        <Tag text={breaker.number} />
        <Typography variant="h2" data-testid="breaker-title">
          {fed
            ? `Feeds ${fed.name}`
            : breaker.wording || (breaker.claim ? `“${breaker.claim}”, not proven` : "Not traced yet")}
        </Typography>
      </Stack>
      <Typography variant="body2" color="text.secondary" data-testid="breaker-facts">
        {facts.join(" · ")} · {breaker.place}
      </Typography>
      {fed && (
        <Button component={Link} to={`/h/${home.id}/panel/${fed.panel}`} variant="outlined" sx={{ mt: 1 }}>
          Go to {fed.name}
        </Button>
      )}
      {breaker.kept_behind.length > 0 && (
        <Typography variant="body2" color="error" sx={{ mt: 1, fontWeight: 700 }}>
          Never switch it off: behind it {breaker.kept_behind.join(", ")} must stay on.
        </Typography>
      )}
      {breaker.kept === "on" && (
        <Typography variant="body2" sx={{ mt: 1, fontWeight: 700 }}>
          Must stay on: {breaker.kept_reason}
        </Typography>
      )}
      {breaker.kept === "off" && (
        <Typography variant="body2" sx={{ mt: 1, fontWeight: 700 }}>
          Left off: {breaker.kept_reason}
        </Typography>
      )}
      {breaker.state === "tripped" && (
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
        Proven on it: {breaker.proven}. May be on it: {breaker.possible}.{" "}
        {breaker.claim && `The old card says “${breaker.claim}”.`}
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
                void act([{ kind: "breaker_kept", breaker: breaker.breaker, kept: "on", reason: reason || "as said" }])
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
          <WorkOnIt home={home.id} panel={view.panel.id} breaker={breaker} />
          <BreakerChanges home={home} view={view} breaker={breaker} onMove={onMove} />
          {(["on", "off", "tripped"] as const)
            .filter((to) => to !== breaker.state && !(to !== "on" && breaker.kept === "on" && to === "off"))
            .map((to) => (
              <Button
                key={to}
                variant="outlined"
                onClick={() => void act([{ kind: "breaker_switched", breaker: breaker.breaker, to }])}
              >
                {to === "tripped" ? "It has tripped" : `It is ${to} now`}
              </Button>
            ))}
          {breaker.state === "off" && !breaker.kept && (
            <Button
              variant="outlined"
              onClick={() =>
                void act([{ kind: "breaker_kept", breaker: breaker.breaker, kept: "off", reason: "left off" }])
              }
            >
              Leave it off
            </Button>
          )}
          {breaker.kept ? (
            <Button
              variant="outlined"
              onClick={() => void act([{ kind: "breaker_kept", breaker: breaker.breaker, reason: "" }])}
            >
              {breaker.kept === "on" ? "It may be off again" : "It is no longer left off"}
            </Button>
          ) : (
            breaker.state === "on" && (
              <Button variant="outlined" onClick={() => setMode("keep")}>
                Must stay on
              </Button>
            )
          )}
          <AskFirst
            words="Take out of the record"
            question={`Take breaker ${breaker.number} out of the record? What was seen with it stays in the logbook.`}
            onYes={() =>
              void act(
                [{ kind: "breaker_removed", breaker: breaker.breaker }],
                `Breaker ${breaker.number} is taken out.`,
              )
            }
          />
        </Stack>
      )}
      {evidence !== null && <EvidenceDialog home={home} point={evidence} onClose={() => setEvidence(null)} />}
    </Block>
  );
}
