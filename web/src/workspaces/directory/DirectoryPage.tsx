import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { CardCell, DirectoryView, Drift, PanelView } from "../../api/client";
import { today, useDirectory } from "../../api/queries";
import { myName } from "../../api/record";
import { useThisHome } from "../../app/useThisHome";
import { Choice } from "../../parts/Choice";
import { Empty } from "../../parts/Empty";
import { Loaded } from "../../parts/Loaded";
import { PanelTabs } from "../panel/PanelTabs";
import { CARD_COLORS, keepColors, keptColors, type CardColors } from "./cardColors";
import { CardDrawing } from "./CardDrawing";
import { Drifts } from "./Drifts";
import { Files } from "./Files";
import { Hanging } from "./Hanging";
import { LastingAddress } from "./LastingAddress";
import { OwnWords } from "./OwnWords";

const SHEETS = [
  ["card", "Print the card, true size"],
  ["letter", "On Letter, to cut out"],
  ["a4", "On A4, to cut out"],
] as const;

/** The card for the door, worded from what is proven. */
export function DirectoryPage() {
  const home = useThisHome();
  const { panel } = useParams();
  const view = home.panels.find((p) => p.panel.id === panel) ?? home.panels[0];
  const [colors, setColors] = useState<CardColors>(keptColors);
  const directory = useDirectory(home.id, view?.panel.id, colors);
  if (!view) return <Empty title="No card yet" words="Describe the panel first; the card follows from it." />;
  const choose = (chosen: CardColors) => {
    keepColors(chosen);
    setColors(chosen);
  };
  return (
    <>
      {home.panels.length > 1 && <PanelTabs home={home} shown={view.panel.id} to="directory" />}
      <Loaded query={directory} what="card">
        {(shown: DirectoryView) => <Shown home={home.id} view={view} shown={shown} colors={colors} onColors={choose} />}
      </Loaded>
    </>
  );
}

interface Props {
  home: string;
  view: PanelView;
  shown: DirectoryView;
  colors: CardColors;
  onColors: (colors: CardColors) => void;
}

function heading(drifts: readonly Drift[]): string {
  if (drifts.length === 0) return "The card for the door";
  const lines = drifts.length === 1 ? "One line" : `${drifts.length} lines`;
  // Words that were never clear cannot be kept; the others were right once.
  if (drifts.every((drift) => drift.keep != null)) {
    return drifts.length === 1 ? `${lines} no longer matches what is known` : `${lines} no longer match what is known`;
  }
  return drifts.length === 1 ? `${lines} is to be looked at` : `${lines} are to be looked at`;
}

function Shown({ home, view, shown, colors, onColors }: Props) {
  const { card, drifts } = shown;
  const [wording, setWording] = useState<CardCell | null>(null);
  const own = wording?.own;
  const open = card.cells.filter((cell) => cell.kind === "not_proven" && cell.own != null).length;
  const { width_mm: width, height_mm: height } = card.panel.card;
  return (
    <>
      <Typography variant="h1">{heading(drifts)}</Typography>
      <Typography color="text.secondary" data-testid="fits">
        {width} × {height} mm
        {shown.type_pt != null && `, letters of ${shown.type_pt} points, every line fits`} · {card.progress.proven} of{" "}
        {card.progress.points} points proven
      </Typography>
      {shown.too_small != null && (
        <Alert severity="warning" variant="outlined" sx={{ my: 2, maxWidth: 860 }}>
          {shown.too_small.wrong} {shown.too_small.advice}
        </Alert>
      )}
      {drifts.some((drift) => drift.misleads) && (
        <Alert severity="error" variant="outlined" sx={{ my: 2, maxWidth: 860 }}>
          Own words would send the hand to the wrong breaker. Answer them before you print; until then prove dead at the
          outlet itself, whatever the card says.
        </Alert>
      )}
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap", alignItems: "center" }}>
        {SHEETS.filter(([sheet]) => shown.papers.includes(sheet)).map(([sheet, words], n) => (
          <Button
            key={sheet}
            variant={n === 0 ? "contained" : "outlined"}
            color={n === 0 ? "primary" : "inherit"}
            href={pdf(home, view.panel.id, sheet, colors)}
            target="_blank"
            rel="noreferrer"
          >
            {words}
          </Button>
        ))}
        <Button component={Link} to={`/h/${home}/stickers`} variant="outlined" color="inherit">
          Stickers
        </Button>
        <Button component={Link} to={`/h/${home}/book`} variant="outlined" color="inherit">
          Home book
        </Button>
        <Button component={Link} to={`/h/${home}/tests`} variant="outlined" color="inherit">
          Tests that come round
        </Button>
        <Choice label="Colors" value={colors} options={CARD_COLORS} onChange={onColors} />
      </Stack>
      <Box
        sx={{
          display: "grid",
          gap: 3,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 300px" },
          gridTemplateRows: { md: "auto 1fr" },
          gridTemplateAreas: { xs: '"drifts" "card" "hanging"', md: '"card drifts" "card hanging"' },
        }}
      >
        <Box sx={{ gridArea: "drifts" }}>{drifts.length > 0 && <Drifts home={home} drifts={drifts} />}</Box>
        <Box sx={{ gridArea: "hanging" }}>
          <Hanging home={home} view={view} shown={shown} colors={colors} />
        </Box>
        <Box sx={{ gridArea: "card", maxWidth: 860, minWidth: 0 }}>
          {open > 0 && (
            <Alert severity="warning" variant="outlined" sx={{ mb: 2 }}>
              {open === 1 ? "One circuit is" : `${open} circuits are`} not proven and marked so. That is honest, and not
              yet what the code asks of a directory: each circuit&rsquo;s clear, evident and specific purpose (NEC
              408.4(A), from memory). The local code comes first.
            </Alert>
          )}
          <CardDrawing card={card} code={shown.code} colors={colors} onWord={setWording} />
          <Typography variant="body2" sx={{ mt: 1 }}>
            Touch a line to write own words.{" "}
            {open === 0 &&
              "NEC 408.4(A), from memory, asks for each circuit’s clear, evident and specific purpose; the local code comes first."}
          </Typography>
        </Box>
      </Box>
      <Box sx={{ mt: 2 }}>
        <LastingAddress home={home} address={card.address ?? ""} />
        <Files home={home} panel={view.panel.id} colors={colors} />
      </Box>
      {wording !== null && own != null && (
        <OwnWords home={home} cell={wording} own={own} onClose={() => setWording(null)} />
      )}
    </>
  );
}

function pdf(home: string, panel: string, sheet: string, colors: CardColors): string {
  const query = new URLSearchParams({ panel, sheet, colors, date: today(), by: myName() });
  return `/api/homes/${home}/directory.pdf?${query.toString()}`;
}
