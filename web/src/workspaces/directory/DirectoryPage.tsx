import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useParams } from "react-router";
import type { Card } from "../../api/client";
import { today, useDirectory } from "../../api/queries";
import { useThisHome } from "../../app/useThisHome";
import { Empty } from "../../parts/Empty";
import { Loaded } from "../../parts/Loaded";
import { PanelTabs } from "../panel/PanelTabs";
import { CardDrawing } from "./CardDrawing";

const SHEETS = [
  ["card", "PDF, true size of the card"],
  ["letter", "PDF on Letter, to cut out"],
  ["a4", "PDF on A4, to cut out"],
] as const;

/** The card for the door, worded from what is proven. */
export function DirectoryPage() {
  const home = useThisHome();
  const { panel } = useParams();
  const view = home.panels.find((p) => p.panel.id === panel) ?? home.panels[0];
  const directory = useDirectory(home.id, view?.panel.id);
  if (!view) return <Empty title="No card yet" words="Describe the panel first; the card follows from it." />;
  return (
    <>
      {home.panels.length > 1 && <PanelTabs home={home} shown={view.panel.id} to="directory" />}
      <Typography variant="h1">The card for the door</Typography>
      <Loaded query={directory} what="card">
        {(card: Card) => {
          const open = card.cells.filter((cell) => cell.kind === "not_proven").length;
          return (
            <>
              <Typography color="text.secondary">
                {card.panel.card.width_mm} × {card.panel.card.height_mm} mm · {card.progress.proven} of{" "}
                {card.progress.points} points proven
              </Typography>
              <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap" }}>
                {SHEETS.map(([sheet, words], n) => (
                  <Button
                    key={sheet}
                    variant={n === 0 ? "contained" : "outlined"}
                    href={`/api/homes/${home.id}/directory.pdf?panel=${view.panel.id}&sheet=${sheet}&date=${today()}`}
                    target="_blank"
                    rel="noreferrer"
                  >
                    {words}
                  </Button>
                ))}
              </Stack>
              {open > 0 && (
                <Alert severity="warning" variant="outlined" sx={{ mb: 2, maxWidth: 760 }}>
                  {open === 1 ? "One circuit is" : `${open} circuits are`} not proven and marked so. That is honest, and
                  not yet what the code asks of a directory: each circuit&rsquo;s clear, evident and specific purpose
                  (NEC 408.4(A), from memory; local code comes first).
                </Alert>
              )}
              <Box sx={{ maxWidth: 860 }}>
                <CardDrawing card={card} />
              </Box>
            </>
          );
        }}
      </Loaded>
    </>
  );
}
