import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useDeferredValue, useState } from "react";
import { answer, api, type CardLine, type HomeOverview, type Panel } from "../../api/client";
import { useReadCard } from "../../api/queries";
import { useRecord } from "../../api/record";
import { tone } from "../../app/theme";
import { wordsOf } from "../../app/useNotice";
import { Tag } from "../../drawing/Tag";

interface Props {
  home: HomeOverview;
  panel: Panel;
  open: boolean;
  onClose: () => void;
}

export function CardDialog(props: Props) {
  const full = useMediaQuery(useTheme().breakpoints.down("md"));
  return (
    <Dialog
      open={props.open}
      onClose={props.onClose}
      fullWidth
      maxWidth="md"
      fullScreen={full}
      aria-labelledby="card-title"
    >
      <DialogTitle id="card-title">Type the card as it reads</DialogTitle>
      <TypedCard {...props} />
    </Dialog>
  );
}

function TypedCard({ home, panel, onClose }: Props) {
  const record = useRecord(home.id);
  const [text, setText] = useState("");
  const [error, setError] = useState<unknown>(null);
  const read = useReadCard(home.id, panel.id, useDeferredValue(text));
  const lines = text.trim() === "" ? [] : (read.data ?? []);
  const count = lines.filter((line) => line.outcome === "breaker").length;
  const unclear = lines.filter((line) => line.outcome === "unclear").length;
  const keep = async () => {
    try {
      // Read once more, so that what is kept is what stands in the field now.
      const path = { home: home.id, panel: panel.id };
      const now = await answer(api.POST("/api/homes/{home}/panels/{panel}/card", { params: { path }, body: { text } }));
      const facts = now.flatMap((line) => (line.outcome === "breaker" ? line.facts : []));
      if (facts.length > 0) await record(facts);
      const rest = now.filter((line) => line.outcome === "unclear").map((line) => line.text);
      if (rest.length === 0) onClose();
      else setText(rest.join("\n"));
    } catch (refused) {
      setError(refused);
    }
  };
  return (
    <>
      <DialogContent>
        <Typography color="text.secondary" sx={{ mb: 2 }}>
          One breaker a line: the space, the amps, what the card says. Two poles as <b>5-7 50/2 range</b>, half a space
          as <b>14a 15 bell</b>.
        </Typography>
        <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" } }}>
          <TextField
            label="The card"
            multiline
            minRows={10}
            maxRows={24}
            value={text}
            onChange={(e) => setText(e.target.value)}
            placeholder={"1 20 kitchen\n3 15 rec\n5-7 50/2 range"}
            autoFocus
            slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: "monospace", fontSize: 16 } } }}
          />
          <Box
            component="ol"
            aria-label="What it means"
            sx={{ listStyle: "none", m: 0, p: 0 }}
            data-testid="card-preview"
          >
            {lines.map((line) => (
              <PreviewLine key={line.line} line={line} />
            ))}
          </Box>
        </Box>
        {error !== null && (
          <Alert severity="error" variant="outlined" sx={{ mt: 2 }}>
            {wordsOf(error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        {unclear > 0 && (
          <Typography variant="body2" color="error" sx={{ mr: "auto", pl: 2 }}>
            {unclear === 1
              ? "1 line is not understood; it stays here."
              : `${unclear} lines are not understood; they stay here.`}
          </Typography>
        )}
        <Button color="inherit" onClick={onClose}>
          Leave as it was
        </Button>
        <Button variant="contained" disabled={count === 0} onClick={() => void keep()}>
          Keep {count === 1 ? "1 breaker" : `${count} breakers`}
        </Button>
      </DialogActions>
    </>
  );
}

function PreviewLine({ line }: { line: CardLine }) {
  const rule = { borderBottom: `1px solid ${tone("rule")}`, py: 0.75, display: "flex", gap: 1, alignItems: "center" };
  if (line.outcome === "nothing") return null;
  if (line.outcome === "unclear") {
    return (
      <Box component="li" sx={{ ...rule, color: "error.main" }} data-outcome="unclear">
        <Typography variant="body2">
          Line {line.line}, column {line.column}: {line.wrong} {line.accepted}
        </Typography>
      </Box>
    );
  }
  return (
    <Box component="li" sx={rule} data-outcome="breaker">
      <Tag text={line.number} />
      <span>
        {line.amps} A {line.label && `“${line.label}”`}{" "}
        <Box component="span" sx={{ color: "text.secondary" }}>
          {line.known ? (line.facts.length === 0 ? "as before" : "changed") : "new"}
        </Box>
      </span>
    </Box>
  );
}
