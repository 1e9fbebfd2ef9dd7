import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import type { Fact, Handle, StepAct, StepCard, StepSwitch } from "../api/client";
import { tone } from "../app/theme";
import { BigBlade } from "../drawing/BigBlade";
import { Tag } from "../drawing/Tag";
import { Alarm } from "./Alarm";
import { Block } from "./Block";

interface Props {
  card: StepCard;
  home: string;
  onFacts: (facts: Fact[]) => void;
  /** What belongs under the words: points to look at, a field. */
  children?: ReactNode;
}

/** One step as the program words it, with its buttons: the same for the owner and for helpers. */
export function StepCardShown({ card, home, onFacts, children }: Props) {
  const loud = card.weight === "loud";
  if (card.weight === "alarm")
    return (
      <Alarm data-step-card={card.side} data-weight={card.weight}>
        <Heading card={card} />
        <Typography>{card.why}</Typography>
        {card.cautions.map((caution) => (
          <Typography key={caution} sx={{ mt: 1 }}>
            {caution}
          </Typography>
        ))}
        <Acts card={card} home={home} onFacts={onFacts} />
        {children}
      </Alarm>
    );
  const why = card.why && <Typography sx={{ my: 1 }}>{card.why}</Typography>;
  const switching = card.switches.length > 0;
  return (
    <Box data-step-card={card.side} data-weight={card.weight}>
      <Block loud={loud}>
        <Typography variant="h3" component="p" sx={{ color: loud ? tone("blaze") : tone("pine"), mb: 0.5 }}>
          {card.over}
        </Typography>
        <Heading card={card} />
        {!switching && why}
        {card.switches.map((part) => (
          <Switches key={part.to} part={part} named={card.switches.length > 1} />
        ))}
        {card.cautions.map((caution) => (
          <Typography key={caution} variant="body2" sx={{ my: 1 }}>
            {caution}
          </Typography>
        ))}
        <Acts card={card} home={home} onFacts={onFacts} />
        {switching && why && (
          <Box sx={{ mt: 1.5, pt: 0.5, borderTop: `1px solid ${tone("rule")}`, color: "text.secondary" }}>{why}</Box>
        )}
        {children}
      </Block>
    </Box>
  );
}

/** The focus goes here when the step changes. */
function Heading({ card }: { card: StepCard }) {
  return (
    <Typography variant="h1" component="h2" sx={{ mb: 0.5, outline: "none" }} tabIndex={-1} data-testid="instruction">
      {card.title}
    </Typography>
  );
}

function Switches({ part, named }: { part: StepSwitch; named: boolean }) {
  const one = part.handles.length === 1 ? part.handles[0] : undefined;
  return (
    <Box sx={{ my: 1 }}>
      {named && (
        <Typography variant="h3" component="p" sx={{ mb: 0.5 }}>
          {part.words}
        </Typography>
      )}
      {one ? <BigBlade handle={one} /> : <Handles handles={part.handles} />}
    </Box>
  );
}

function Handles({ handles }: { handles: Handle[] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {handles.map((handle) => (
        <Box component="li" key={handle.breaker} sx={{ display: "flex", alignItems: "center", gap: 1.5, py: 0.5 }}>
          <Tag text={handle.number} size="large" />
          <Typography component="span" variant="body2" sx={{ minWidth: 0 }}>
            {handle.place}, {handle.amps} A{handle.claim != null && `, “${handle.claim}”`}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

function Acts({ card, home, onFacts }: Omit<Props, "children">) {
  const [cannot, setCannot] = useState(false);
  const [reason, setReason] = useState("");
  const act = (act: StepAct, look: "contained" | "outlined") =>
    act.does === "open" ? (
      <Button
        key={act.words}
        variant={look}
        size="large"
        component={Link}
        to={`/h/${home}/${act.screen}`}
        data-main={look === "contained" ? true : undefined}
      >
        {act.words}
      </Button>
    ) : (
      <Button
        key={act.words}
        variant={look}
        size={look === "contained" ? "large" : "medium"}
        data-main={look === "contained" ? true : undefined}
        onClick={() => onFacts(act.reason ? withReason(act.facts, reason) : act.facts)}
      >
        {act.words}
      </Button>
    );
  const isKept = (instead: StepAct) => instead.does === "record" && instead.reason;
  const kept = card.instead.filter(isKept);
  const others = card.instead.filter((instead) => !isKept(instead));
  if (!card.main && card.acts.length + card.choices.length + card.instead.length === 0) return null;
  return (
    <>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1 }}>
        {card.choices.map((choice) => act(choice, "outlined"))}
        {card.main && act(card.main, "contained")}
        {card.acts.map((other) => act(other, "outlined"))}
        {card.instead.length > 0 && (
          <Button variant="outlined" aria-expanded={cannot} onClick={() => setCannot(!cannot)}>
            Can’t
          </Button>
        )}
      </Stack>
      {cannot && (
        <Stack spacing={1.5} sx={{ mt: 2 }}>
          {kept.length > 0 && (
            <>
              <Typography variant="h3" component="p">
                It must stay on
              </Typography>
              <TextField
                size="small"
                label="Why"
                placeholder="somebody works there until five"
                value={reason}
                onChange={(event) => setReason(event.target.value)}
                helperText="For good or for now: “Must stay on”, below, takes it back."
              />
              <Row>{kept.map((instead) => act(instead, "outlined"))}</Row>
            </>
          )}
          {others.length > 0 && (
            <>
              <Typography variant="h3" component="p">
                Or another one is off now
              </Typography>
              <Row>{others.map((instead) => act(instead, "outlined"))}</Row>
            </>
          )}
        </Stack>
      )}
    </>
  );
}

function Row({ children }: { children: ReactNode }) {
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
      {children}
    </Stack>
  );
}

const withReason = (facts: Fact[], reason: string): Fact[] =>
  facts.map((fact) => (fact.kind === "breaker_kept" && reason.trim() ? { ...fact, reason: reason.trim() } : fact));
