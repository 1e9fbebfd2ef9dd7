import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import type { WordedLine } from "../../api/client";
import { tone } from "../../app/theme";
import { when } from "../../parts/when";

interface Props {
  line: WordedLine;
  onStrike: () => void;
  onRestore: () => void;
  onWrongHandle: () => void;
}

/** One line: its number, what it records, when, who, with what. */
export function LineRow({ line, onStrike, onRestore, onWrongHandle }: Props) {
  const { entry, seq } = line.line;
  const details = [when(entry.at), entry.by, line.with].filter(Boolean).join(" · ");
  return (
    <Box
      component="li"
      data-seq={seq}
      data-struck={line.struck}
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
          component={line.struck ? "s" : "span"}
          sx={{ fontWeight: 600, color: line.struck ? "text.secondary" : "inherit" }}
        >
          {line.words}
        </Box>
        <Box sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
          {details}
          {line.struck && " · struck out"}
        </Box>
      </Box>
      <Stack direction={{ xs: "column", md: "row" }} sx={{ flexShrink: 0 }}>
        {entry.fact.kind === "breaker_switched" && !line.struck && (
          <Button color="inherit" onClick={onWrongHandle} aria-label={`Wrong handle in line ${seq}`}>
            Wrong handle
          </Button>
        )}
        {line.strikable &&
          (line.struck ? (
            <Button variant="outlined" onClick={onRestore} aria-label={`Strike line ${seq} back in`}>
              Back in
            </Button>
          ) : (
            <Button color="inherit" onClick={onStrike} aria-label={`Strike out line ${seq}`}>
              Strike out
            </Button>
          ))}
      </Stack>
    </Box>
  );
}
