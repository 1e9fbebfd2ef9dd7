import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { Sticker } from "../../api/client";
import { useSheetProblem, useStickers } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";
import { Loaded } from "../../parts/Loaded";
import { keepSheet, keptSheet, PRESETS, sheetsPdf, type LabelSheet } from "./sheets";
import { SheetDrawing } from "./SheetDrawing";
import { SheetFields } from "./SheetFields";

const WHICH = [
  ["all", "all of them"],
  ["changed", "only those that changed"],
] as const;
type Which = (typeof WHICH)[number][0];

/** Stickers for cover plates, on any sheet of labels, beginning at any of its cells. */
export function StickersPage() {
  const home = useThisHome();
  const stickers = useStickers(home.id);
  return (
    <>
      <Typography variant="h1">Stickers for cover plates</Typography>
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        Each proven receptacle, switch, box and appliance gets the number of its breaker and where that is in the panel.
      </Typography>
      <Loaded query={stickers} what="stickers">
        {(all: Sticker[]) => <Sheets home={home.id} all={all} />}
      </Loaded>
    </>
  );
}

function Sheets({ home, all }: { home: string; all: readonly Sticker[] }) {
  const act = useAct(home);
  const [sheet, setSheet] = useState<LabelSheet>(keptSheet);
  const [begin, setBegin] = useState(1);
  const changed = all.filter((sticker) => sticker.changed);
  const [which, setWhich] = useState<Which>(changed.length > 0 && changed.length < all.length ? "changed" : "all");
  const shown = which === "all" ? all : changed;
  const use = (next: LabelSheet) => {
    keepSheet(next);
    setSheet(next);
    setBegin((first) => Math.min(first, Math.max(1, next.columns * next.rows)));
  };
  const address = sheetsPdf(home, sheet, begin, which === "changed");
  const problem = useSheetProblem(home, address, shown.length > 0).data;
  const count = sheet.columns * sheet.rows;
  const sheets = Math.ceil((begin - 1 + shown.length) / Math.max(1, count));
  const preset = PRESETS.find(([, , of]) => JSON.stringify(of) === JSON.stringify(sheet))?.[0] ?? "own";
  if (all.length === 0) {
    return (
      <Alert severity="info" variant="outlined">
        Nothing with a cover plate is proven yet. Trace first; a sticker says only what is proven.
      </Alert>
    );
  }
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "340px minmax(0, 1fr)" } }}>
      <Stack spacing={2}>
        <Choice label="Stickers" value={which} options={WHICH} onChange={setWhich} />
        <Choice
          label="Labels"
          value={preset}
          options={[...PRESETS.map(([id, words]) => [id, words] as const), ["own", "own sizes"] as const]}
          onChange={(id) => {
            const chosen = PRESETS.find(([known]) => known === id)?.[2];
            if (chosen !== undefined) use(chosen);
          }}
        />
        <Fold label="sizes of the sheet" onPage>
          <SheetFields sheet={sheet} onSheet={use} />
        </Fold>
        <Typography data-testid="sticker-count">
          {shown.length === 1 ? "1 sticker" : `${shown.length} stickers`} on{" "}
          {sheets === 1 ? "1 sheet" : `${sheets} sheets`}, beginning at label {begin} of {count}.
        </Typography>
        {problem != null && (
          <Alert severity="warning" variant="outlined" data-testid="sheet-problem">
            {problem}
          </Alert>
        )}
        <Button
          variant="contained"
          disabled={shown.length === 0 || problem != null}
          href={address}
          target="_blank"
          rel="noreferrer"
        >
          Print, true size
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          disabled={shown.length === 0}
          onClick={() =>
            void act(
              [
                {
                  kind: "stickers_printed",
                  stickers: shown.map((sticker) => ({ point: sticker.point, says: sticker.says })),
                },
              ],
              "They count as printed.",
            )
          }
        >
          They are printed and stuck on
        </Button>
        <Button component={Link} to="../directory" color="inherit">
          Back to the card
        </Button>
      </Stack>
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="body2" sx={{ mb: 1 }}>
          Touch the label to begin at: those before it stay blank.
        </Typography>
        <SheetDrawing sheet={sheet} begin={begin} stickers={shown} onBegin={setBegin} />
        <Box component="ol" data-testid="stickers" sx={{ pl: 3 }}>
          {shown.map((sticker) => (
            <li key={sticker.point} data-number={sticker.number}>
              <b>{sticker.number}</b>
              {sticker.gfci && " GFCI"}: {sticker.at}
            </li>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
