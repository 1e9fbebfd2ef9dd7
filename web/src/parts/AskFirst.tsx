import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";

interface Props {
  /** What stands on the button: "Remove room". */
  words: string;
  /** What is asked before it is done: "Remove Kitchen with its 5 points?" */
  question: string;
  /** What the button is called aloud, where its words alone do not tell which of several. */
  label?: string;
  onYes: () => void;
}

/** A button for what takes something away: it asks once before. */
export function AskFirst({ words, question, label, onYes }: Props) {
  const [asking, setAsking] = useState(false);
  if (!asking) {
    return (
      <Button variant="outlined" color="error" aria-label={label} onClick={() => setAsking(true)}>
        {words}
      </Button>
    );
  }
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", alignItems: "center" }} role="group">
      <Typography variant="body2">{question}</Typography>
      <Button
        variant="contained"
        color="error"
        autoFocus
        onClick={() => {
          setAsking(false);
          onYes();
        }}
      >
        Yes, {words.charAt(0).toLowerCase() + words.slice(1)}
      </Button>
      <Button variant="outlined" color="inherit" onClick={() => setAsking(false)}>
        Keep it
      </Button>
    </Stack>
  );
}
