import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { Card, CardCell, DirectoryView } from "../../api/client";
import { Code } from "../../parts/Code";
import { PAPER, boxOf, type CardColors } from "./cardColors";

interface Props {
  card: Card;
  /** The code of the home's lasting address. */
  code?: DirectoryView["code"];
  colors: CardColors;
  /** Somebody wants to write own words for this line. */
  onWord: (cell: CardCell) => void;
}

/** The card as it hangs in the door: the panel's own layout, on paper in the dark scheme, too. */
export function CardDrawing({ card, code, colors, onWord }: Props) {
  const one = card.panel.columns === "one";
  return (
    <Box
      data-testid="card"
      sx={{
        bgcolor: PAPER.card,
        color: PAPER.ink,
        border: `2px solid ${PAPER.ink}`,
        borderRadius: 1,
        p: { xs: 1, md: 2 },
      }}
    >
      <Box sx={{ fontFamily: "Overpass Variable", fontWeight: 700, fontSize: "1.3rem", overflowWrap: "anywhere" }}>
        {card.text.title}
      </Box>
      <Box sx={{ color: PAPER.soft, mb: 1.5 }}>{card.text.subtitle}</Box>
      <Box
        component="ul"
        aria-label="Circuits"
        sx={{
          listStyle: "none",
          m: 0,
          p: 0,
          display: "grid",
          gridTemplateColumns: one ? "1fr" : "minmax(0, 1fr) minmax(0, 1fr)",
          gridTemplateRows: rowHeights(card),
          columnGap: { xs: "4px", md: "10px" },
          border: `1px solid ${PAPER.ink}`,
        }}
      >
        {card.cells.map((cell) => (
          <Cell key={`${cell.side} ${cell.part.top}`} cell={cell} one={one} colors={colors} onWord={onWord} />
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 2, mt: 1, alignItems: "end" }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {card.text.foot.map((line) => (
            <Box key={line} sx={{ fontSize: "0.85rem", mt: 1 }}>
              {line}
            </Box>
          ))}
        </Box>
        {code != null && <Code code={code} side={92} label={`Code of ${card.address ?? ""}`} />}
      </Box>
    </Box>
  );
}

/** Half rows: with the line below them a line is high enough to be touched, also one of half a row. */
function rowHeights(card: Card): string {
  const halves = new Set(card.cells.filter((cell) => cell.part.height === 1).map((cell) => cell.part.top));
  const high = (at: number) => (halves.has(at) ? 45 : 22.5);
  return Array.from({ length: card.rows * 2 }, (_, at) => `minmax(${high(at)}px, auto)`).join(" ");
}

function Cell({ cell, one, colors, onWord }: { cell: CardCell; one: boolean } & Omit<Props, "card" | "code">) {
  const left = cell.side === "left";
  const mirrored = left && !one;
  const proven = cell.kind === "proven";
  const box = boxOf(cell, colors);
  const row = {
    width: "100%",
    height: "100%",
    display: "flex",
    flexDirection: mirrored ? "row-reverse" : "row",
    alignItems: "center",
    gap: { xs: 0.5, md: 1 },
    textAlign: mirrored ? "right" : "left",
    font: "inherit",
    color: "inherit",
    "&:focus-visible": { outline: `3px solid ${PAPER.ink}`, outlineOffset: "-3px" },
    pr: mirrored ? 0 : { xs: 0.5, md: 1 },
    pl: mirrored ? { xs: 0.5, md: 1 } : 0,
  } as const;
  const content = (
    <>
      <Box
        component="span"
        aria-hidden
        sx={{
          alignSelf: "stretch",
          flex: "none",
          width: colors === "none" ? 4 : { xs: 16, md: 22 },
          display: "grid",
          placeItems: "center",
          bgcolor: box?.color,
          fontFamily: "Overpass Variable",
          fontWeight: 700,
          fontSize: "0.85rem",
        }}
      >
        {box?.letter}
      </Box>
      <Box component="span" sx={{ minWidth: { xs: 28, md: 34 }, flex: "none", lineHeight: 1.15, textAlign: "center" }}>
        <Box
          component="span"
          sx={{ display: "block", fontFamily: "Overpass Variable", fontWeight: 800, fontSize: "1.1rem" }}
        >
          {cell.number}
        </Box>
        <Box component="span" sx={{ display: "block", color: PAPER.soft, fontSize: "0.8rem" }}>
          {cell.amps !== "" && `${cell.amps} A`}
        </Box>
      </Box>
      <Box
        component="span"
        sx={{ flex: 1, minWidth: 0, py: 0.4, fontSize: { xs: "0.8rem", md: "0.85rem" }, lineHeight: 1.25 }}
      >
        <Box
          component="span"
          sx={{
            display: "block",
            fontStyle: proven ? "normal" : "italic",
            overflowWrap: "anywhere",
            color: proven ? "inherit" : PAPER.soft,
          }}
        >
          {cell.text}
        </Box>
        {cell.notes.map((note) => (
          <Box key={note} component="span" sx={{ display: "block", color: PAPER.soft, overflowWrap: "anywhere" }}>
            {note}
          </Box>
        ))}
      </Box>
    </>
  );
  return (
    <Box
      component="li"
      data-kind={cell.kind}
      data-number={cell.number}
      data-drifts={cell.drifts}
      sx={{
        gridColumn: left ? 1 : 2,
        gridRow: `${cell.part.top + 1} / span ${cell.part.height}`,
        borderBottom: `1px solid ${PAPER.rule}`,
        bgcolor: proven ? "transparent" : PAPER.rail,
        minWidth: 0,
      }}
    >
      {cell.own == null ? (
        <Box sx={row}>{content}</Box>
      ) : (
        <ButtonBase sx={row} onClick={() => onWord(cell)} title="Own words for this line">
          {content}
        </ButtonBase>
      )}
    </Box>
  );
}
