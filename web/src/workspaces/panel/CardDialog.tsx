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
import { useDeferredValue, useState, type ClipboardEvent } from "react";
import {
  answer,
  api,
  type CardLine,
  type ColumnRole,
  type HomeOverview,
  type Panel,
  type SheetRead,
} from "../../api/client";
import { readSheet, useReadCard } from "../../api/queries";
import { useRecord } from "../../api/record";
import { tone } from "../../app/theme";
import { PostPreview } from "../../drawing/PostPreview";
import { Tag } from "../../drawing/Tag";
import { ErrorLine } from "../../parts/form/ErrorLine";
import { FileButton } from "../../parts/form/FileButton";
import { KeptNote } from "../../parts/form/KeptNote";
import { useKeptText } from "../../parts/form/kept";
import { SheetColumns } from "./SheetColumns";

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
      maxWidth="lg"
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
  // Kept on this device until it is recorded or discarded.
  const [text, setText] = useKeptText(`card ${home.id} ${panel.id}`);
  const [before] = useState(text !== "");
  const [sheet, setSheet] = useState<{ file: Blob; read: SheetRead } | null>(null);
  const [error, setError] = useState<unknown>(null);
  const read = useReadCard(home.id, panel.id, useDeferredValue(text));
  const typed = text.trim() !== "";
  const lines = typed ? (read.data?.lines ?? []) : [];
  const count = lines.filter((line) => line.outcome === "breaker").length;
  const unclear = lines.filter((line) => line.outcome === "unclear").length;
  const load = async (file: Blob, columns: ColumnRole[] | null) => {
    try {
      const understood = await readSheet(home.id, panel.id, file, columns);
      setSheet({ file, read: understood });
      setText(understood.text);
      setError(null);
    } catch (refused) {
      setError(refused);
    }
  };
  const paste = (event: ClipboardEvent) => {
    // Cells copied from a spreadsheet come with tabs between.
    const pasted = event.clipboardData.getData("text/plain");
    if (!pasted.includes("\t")) return;
    event.preventDefault();
    void load(new Blob([pasted]), null);
  };
  const save = async () => {
    try {
      // Read once more, so that what is saved is what stands in the field now.
      const path = { home: home.id, panel: panel.id };
      const now = await answer(api.POST("/api/homes/{home}/panels/{panel}/card", { params: { path }, body: { text } }));
      const facts = now.lines.flatMap((line) => (line.outcome === "breaker" ? line.facts : []));
      if (facts.length > 0) await record(facts);
      const rest = now.lines.filter((line) => line.outcome === "unclear").map((line) => line.text);
      setSheet(null);
      setText(rest.join("\n"));
      if (rest.length === 0) onClose();
    } catch (refused) {
      setError(refused);
    }
  };
  return (
    <>
      <DialogContent>
        <KeptNote kept={before && text !== ""} onDiscard={() => setText("")} />
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          One breaker a line: the space, the amps, what the card says. Two poles as <b>5-7 50/2 range</b>, half a space
          as <b>14a 15 bell</b>, a feeder as <b>18-20 60/2 greenhouse &gt; sub</b>. Before the words may stand gfci,
          afci, dual, quad, slim, tied, or a wire like #12.
        </Typography>
        <Box sx={{ mb: 2 }}>
          <FileButton
            words="Take it from a spreadsheet"
            label="Spreadsheet"
            accept=".csv,.tsv,.txt,.xlsx,.ods"
            onFile={(file) => void load(file, null)}
          />
        </Box>
        {sheet && (
          <SheetColumns
            read={sheet.read}
            onChange={(columns) => void load(sheet.file, columns)}
            onClose={() => setSheet(null)}
          />
        )}
        <ErrorLine error={error} />
        <Box
          sx={{
            display: "grid",
            gap: 2,
            gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,5fr) minmax(0,5fr) minmax(0,6fr)" },
          }}
        >
          <TextField
            label="The card"
            multiline
            minRows={10}
            maxRows={24}
            value={text}
            onChange={(e) => setText(e.target.value)}
            onPaste={paste}
            placeholder={"1 20 kitchen\n3 15 rec\n5-7 50/2 range"}
            autoFocus
            slotProps={{ htmlInput: { spellCheck: false, style: { fontFamily: "monospace", fontSize: 16 } } }}
          />
          <Box
            component="ol"
            aria-label="What it means"
            sx={{ listStyle: "none", m: 0, p: 0, maxHeight: { md: 620 }, overflowY: { md: "auto" } }}
            data-testid="card-preview"
            tabIndex={0}
          >
            {lines.map((line) => (
              <PreviewLine key={line.line} line={line} />
            ))}
          </Box>
          {typed && read.data && (
            <Box data-testid="post-preview" sx={{ maxHeight: { md: 620 }, overflowY: { md: "auto" } }}>
              <PostPreview view={read.data.panel} />
            </Box>
          )}
        </Box>
      </DialogContent>
      <DialogActions>
        {unclear > 0 && (
          <Typography variant="body2" color="error" sx={{ mr: "auto", pl: 2 }}>
            {unclear === 1
              ? "1 line is not understood; it stays here."
              : `${unclear} lines are not understood; they stay here.`}
          </Typography>
        )}
        <Button
          color="inherit"
          onClick={() => {
            setText("");
            onClose();
          }}
        >
          Cancel
        </Button>
        <Button variant="contained" disabled={count === 0} onClick={() => void save()}>
          Save {count === 1 ? "1 breaker" : `${count} breakers`}
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
