import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import type { NextLook, TroubleAnswer } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";

type Saw = TroubleAnswer["saw"];

interface Props {
  next: NextLook;
  onSaw: (saw: Saw) => void;
}

/** The one next look: what to do, what to mind, and what it showed. The digits answer, too, in the order of the buttons. */
export function NextLookShown({ next, onSaw }: Props) {
  const usual = next.answers.filter((answer) => answer.usual);
  const others = next.answers.filter((answer) => !answer.usual);
  // A second tap of the same finger would answer what has just come up; so would a key that is held down.
  const [ready, setReady] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => setReady(true), 400);
    return () => clearTimeout(soon);
  }, []);
  useEffect(() => {
    // By the order in which the buttons stand.
    const shown = [...next.answers.filter((one) => one.usual), ...next.answers.filter((one) => !one.usual)];
    const press = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, textarea, [role=combobox]");
      if (event.repeat || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const answer = shown[Number(event.key) - 1];
      if (answer) onSaw(answer.saw);
      else if (event.key === "0") onSaw("cannot_tell");
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [next, onSaw]);
  return (
    <Box sx={ready ? undefined : { pointerEvents: "none" }}>
      <Block loud>
        <Typography variant="h2" sx={{ mb: 0.5, outline: "none" }} tabIndex={-1} data-testid="instruction">
          {next.title}
        </Typography>
        {next.how.map((line) => (
          <Typography key={line}>{line}</Typography>
        ))}
        {next.mind.map((line) => (
          <Alert key={line} severity="warning" variant="outlined" data-testid="caution" sx={{ mt: 1 }}>
            {line}
          </Alert>
        ))}
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          {minutes(next.seconds)}
          {next.who !== "" && `. ${next.who}`}
        </Typography>
        <Box sx={{ display: "grid", gap: 1, mt: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
          {usual.map((answer) => (
            <Answer key={answer.label} answer={answer} onSaw={onSaw} />
          ))}
        </Box>
        {next.volts && <Volts onSaw={onSaw} />}
        {next.handles.length > 0 && <OutOfPlace handles={next.handles} onSaw={onSaw} />}
        {others.length > 0 && (
          <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1 }}>
            {others.map((answer) => (
              <Answer key={answer.label} answer={answer} onSaw={onSaw} />
            ))}
          </Stack>
        )}
        {next.decides.length > 0 && (
          <Box sx={{ mt: 1.5, color: "text.secondary" }}>
            {next.decides.map((line) => (
              <Typography key={line} variant="body2">
                {line}
              </Typography>
            ))}
          </Box>
        )}
        <Button color="inherit" onClick={() => onSaw("cannot_tell")} sx={{ mt: 1, minHeight: 48 }}>
          Cannot tell: another look
        </Button>
        {!others.some((answer) => answer.danger) && (
          <Fold label="a sign of danger">
            <Signs onSaw={onSaw} />
          </Fold>
        )}
      </Block>
    </Box>
  );
}

function Answer({ answer, onSaw }: { answer: TroubleAnswer; onSaw: (saw: Saw) => void }) {
  return (
    <Button
      variant={answer.usual || answer.danger ? "contained" : "outlined"}
      color={answer.danger ? "error" : answer.usual ? "secondary" : "inherit"}
      onClick={() => onSaw(answer.saw)}
      data-main={answer.usual ? true : undefined}
      sx={{ minHeight: answer.usual ? 56 : 48 }}
    >
      {answer.label}
    </Button>
  );
}

/** Noticed on the way: it ends the search. */
function Signs({ onSaw }: { onSaw: (saw: Saw) => void }) {
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
      {LISTS.dangerSigns.map(([sign, words]) => (
        <Button
          key={sign}
          variant="contained"
          color="error"
          onClick={() => onSaw({ danger: sign })}
          sx={{ minHeight: 48 }}
        >
          {words}
        </Button>
      ))}
    </Stack>
  );
}

function Volts({ onSaw }: { onSaw: (saw: Saw) => void }) {
  const [text, setText] = useState("");
  const volts = text.trim() === "" ? NaN : Number(text.replace(",", "."));
  const fits = Number.isFinite(volts) && volts >= 0 && volts <= 1000;
  return (
    <Stack
      component="form"
      direction="row"
      spacing={1}
      onSubmit={(event) => {
        event.preventDefault();
        if (fits) onSaw({ volts });
      }}
      sx={{ mt: 1 }}
    >
      <TextField
        label="Volts"
        value={text}
        inputMode="decimal"
        onChange={(event) => setText(event.target.value)}
        error={text !== "" && !fits}
        helperText={text !== "" && !fits ? "Give 0 to 1000 volts." : ""}
      />
      <Button type="submit" variant="contained" color="secondary" disabled={!fits} sx={{ minHeight: 56 }}>
        {fits ? `Write down ${volts} V` : "Write down"}
      </Button>
    </Stack>
  );
}

/** A handle that stands otherwise than on. */
function OutOfPlace({ handles, onSaw }: { handles: NextLook["handles"]; onSaw: (saw: Saw) => void }) {
  const [breaker, setBreaker] = useState(handles[0]?.breaker ?? "");
  const number = handles.find((one) => one.breaker === breaker)?.number ?? "";
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ mt: 1, flexWrap: "wrap" }}>
      <Choice
        label="Handle"
        value={breaker}
        options={handles.map((one) => [one.breaker, one.number] as const)}
        onChange={setBreaker}
      />
      <Button variant="outlined" color="inherit" onClick={() => onSaw({ tripped: breaker })} sx={{ minHeight: 56 }}>
        {number} stands tripped
      </Button>
      <Button variant="outlined" color="inherit" onClick={() => onSaw({ off: breaker })} sx={{ minHeight: 56 }}>
        {number} is off
      </Button>
    </Stack>
  );
}

const minutes = (seconds: number): string =>
  seconds < 50
    ? `About ${Math.max(10, Math.round(seconds / 10) * 10)} seconds`
    : `About ${Math.round(seconds / 60)} min`;
