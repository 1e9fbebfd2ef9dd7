import Box from "@mui/material/Box";
import type { Sticker } from "../../api/client";
import { PAPER } from "./cardColors";
import type { LabelSheet } from "./sheets";

interface Props {
  sheet: LabelSheet;
  begin: number;
  stickers: readonly Sticker[];
  onBegin: (begin: number) => void;
}

/** The first sheet, with what is printed where. */
export function SheetDrawing({ sheet, begin, stickers, onBegin }: Props) {
  const count = Math.min(1000, sheet.columns * sheet.rows);
  return (
    <Box
      role="group"
      aria-label="The first sheet"
      data-testid="first-sheet"
      sx={{
        display: "grid",
        gridTemplateColumns: `repeat(${sheet.columns}, minmax(44px, 1fr))`,
        gap: "4px",
        maxWidth: 640,
      }}
    >
      {Array.from({ length: count }, (_, at) => {
        const sticker = stickers[at - begin + 1];
        const blank = at + 1 < begin || sticker === undefined;
        return (
          <Box
            key={at}
            component="button"
            type="button"
            aria-label={blank ? `Begin at label ${at + 1}` : `Begin at label ${at + 1}, now ${sticker.number}`}
            aria-pressed={at + 1 === begin}
            data-cell={at + 1}
            onClick={() => onBegin(at + 1)}
            sx={{
              minHeight: 44,
              bgcolor: PAPER.card,
              color: PAPER.ink,
              font: "inherit",
              fontWeight: 700,
              border: at + 1 === begin ? `3px solid ${PAPER.ink}` : `1px solid ${PAPER.soft}`,
              borderStyle: blank ? "dashed" : "solid",
              borderRadius: "2px",
              cursor: "pointer",
              overflow: "hidden",
            }}
          >
            {blank ? "" : sticker.number}
          </Box>
        );
      })}
    </Box>
  );
}
