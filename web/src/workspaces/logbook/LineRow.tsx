import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ToldLine } from "../../api/client";
import { tone } from "../../app/theme";
import { when } from "../../parts/when";

const WITH = {
  eye: "by eye",
  plug_in_tester: "plug-in tester",
  lamp: "lamp",
  meter: "meter",
  non_contact: "non-contact tester",
  tone_tracer: "tone tracer",
  clamp_meter: "clamp meter",
  radio: "radio heard at the panel",
} as const;

interface Props {
  told: ToldLine;
  onStrike: () => void;
  onRestore: () => void;
}

/** One line: its number, what it records, when, who, with what. */
export function LineRow({ told, onStrike, onRestore }: Props) {
  const { entry, seq } = told.line;
  const details = [when(entry.at), entry.by, entry.instrument ? WITH[entry.instrument] : ""]
    .filter(Boolean)
    .join(" · ");
  return (
    <Box
      component="li"
      data-seq={seq}
      data-struck={told.struck}
      sx={{
        display: "flex",
        gap: 1.5,
        alignItems: "center",
        borderBottom: `1px solid ${tone("rule")}`,
        py: 0.5,
        minHeight: 52,
      }}
    >
      <Box component="span" sx={{ color: "text.secondary", width: 44, textAlign: "right", flexShrink: 0 }}>
        {seq}
      </Box>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box
          component={told.struck ? "s" : "span"}
          sx={{ fontWeight: 600, color: told.struck ? "text.secondary" : "inherit" }}
        >
          {told.words}
        </Box>
        <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
          {details}
          {told.struck && " · struck out"}
        </Box>
      </Box>
      {told.strikable &&
        (told.struck ? (
          <Button variant="outlined" onClick={onRestore} aria-label={`Strike line ${seq} back in`}>
            Back in
          </Button>
        ) : (
          <Button color="inherit" onClick={onStrike} aria-label={`Strike out line ${seq}`}>
            Strike out
          </Button>
        ))}
    </Box>
  );
}
