import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useRef } from "react";
import type { StopPage } from "../../api/client";

const RED = "#a3151c";
const outlined = { color: "#fff", borderColor: "#fff", minHeight: 56, "&:hover": { borderColor: "#fff" } };

interface Props {
  stop: StopPage;
  about: string;
  onDone: () => void;
  /** Left out where somebody else told it. */
  onOther?: (() => void) | undefined;
}

/** The page that covers everything, bars too: what to do now, what not, whom to call. The same red in light and dark. */
export function StopShown({ stop, about, onDone, onOther }: Props) {
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => title.current?.focus(), []);
  return (
    <Box
      role="alertdialog"
      aria-modal="true"
      aria-labelledby="stop-title"
      data-testid="stop"
      sx={{
        position: "fixed",
        inset: 0,
        zIndex: 1400,
        overflowY: "auto",
        bgcolor: RED,
        color: "#fff",
        "& :focus-visible": { outline: "3px solid #fff", outlineOffset: 2 },
        "& h1:focus-visible": { outline: "none" },
      }}
    >
      <Box sx={{ maxWidth: 640, mx: "auto", p: 2.5, display: "grid", gap: 2 }}>
        <Typography
          id="stop-title"
          ref={title}
          tabIndex={-1}
          variant="h1"
          sx={{ fontSize: { xs: "2.6rem", sm: "3.2rem" }, lineHeight: 1.1, outline: "none" }}
        >
          {stop.title}
        </Typography>
        <Typography sx={{ fontSize: "1.1rem" }}>
          <b>{about}.</b> {stop.why.join(" ")}
        </Typography>
        {stop.main !== "" && <Typography>The main: {stop.main}.</Typography>}
        <Box component="ol" sx={{ m: 0, pl: 3.5, fontSize: "1.15rem", display: "grid", gap: 0.5 }}>
          {stop.steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </Box>
        <Box component="ul" sx={{ m: 0, pl: 3.5 }}>
          {stop.never.map((never) => (
            <li key={never}>{never}</li>
          ))}
        </Box>
        <Box sx={{ display: "grid", gap: 1 }}>
          {stop.call.map((call) =>
            call.number === "" ? (
              <Typography key={call.who}>Call: {lower(call.who)}.</Typography>
            ) : (
              <Button key={call.who} component="a" href={`tel:${call.number}`} variant="outlined" sx={outlined}>
                Call {lower(call.who)}: {call.number}
              </Button>
            ),
          )}
        </Box>
        <Button
          variant="contained"
          onClick={onDone}
          sx={{ minHeight: 64, fontSize: "1.2rem", bgcolor: "#fff", color: RED, "&:hover": { bgcolor: "#fff" } }}
        >
          I have done this
        </Button>
        {onOther && (
          <Button variant="outlined" onClick={onOther} sx={outlined}>
            It was something else
          </Button>
        )}
      </Box>
    </Box>
  );
}

const lower = (words: string) => words.charAt(0).toLowerCase() + words.slice(1);
