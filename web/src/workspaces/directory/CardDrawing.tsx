import Box from "@mui/material/Box";
import type { Card, CardCell } from "../../api/client";
import { tone } from "../../app/theme";

/** The card as it hangs in the door: the panel's own layout. */
export function CardDrawing({ card }: { card: Card }) {
  const one = card.panel.columns === "one";
  return (
    <Box
      data-testid="card"
      sx={{ bgcolor: "background.paper", border: `2px solid ${tone("ink")}`, borderRadius: 1, p: { xs: 1, md: 2 } }}
    >
      <Box sx={{ fontFamily: "Overpass Variable", fontWeight: 700, fontSize: "1.3rem" }}>{card.text.title}</Box>
      <Box sx={{ color: "text.secondary", mb: 1.5 }}>{card.text.subtitle}</Box>
      <Box
        component="ul"
        aria-label="Circuits"
        sx={{
          listStyle: "none",
          m: 0,
          p: 0,
          display: "grid",
          gridTemplateColumns: one ? "1fr" : "minmax(0, 1fr) minmax(0, 1fr)",
          gridTemplateRows: `repeat(${card.rows * 2}, minmax(19px, auto))`,
          columnGap: "10px",
          border: `1px solid ${tone("ink")}`,
        }}
      >
        {card.cells.map((cell) => (
          <Cell key={`${cell.side} ${cell.part.top}`} cell={cell} one={one} />
        ))}
      </Box>
      {card.text.foot.map((line) => (
        <Box key={line} sx={{ fontSize: "0.85rem", mt: 1 }}>
          {line}
        </Box>
      ))}
    </Box>
  );
}

function Cell({ cell, one }: { cell: CardCell; one: boolean }) {
  const left = cell.side === "left";
  const proven = cell.kind === "proven";
  return (
    <Box
      component="li"
      data-kind={cell.kind}
      data-number={cell.number}
      sx={{
        gridColumn: left ? 1 : 2,
        gridRow: `${cell.part.top + 1} / span ${cell.part.height}`,
        display: "flex",
        flexDirection: left && !one ? "row-reverse" : "row",
        alignItems: "center",
        gap: 1,
        px: 1,
        py: 0.4,
        borderBottom: `1px solid ${tone("rule")}`,
        bgcolor: proven ? "transparent" : tone("rail"),
        minWidth: 0,
      }}
    >
      <Box
        component="span"
        sx={{
          fontFamily: "Overpass Variable",
          fontWeight: 800,
          fontSize: "1.1rem",
          minWidth: 34,
          textAlign: left && !one ? "right" : "left",
        }}
      >
        {cell.number}
      </Box>
      <Box
        component="span"
        sx={{
          flex: 1,
          fontSize: "0.85rem",
          lineHeight: 1.25,
          fontStyle: proven ? "normal" : "italic",
          overflowWrap: "anywhere",
          color: proven ? "inherit" : "text.secondary",
        }}
      >
        {cell.text}
      </Box>
      <Box component="span" sx={{ color: "text.secondary", fontSize: "0.85rem" }}>
        {cell.amps}
      </Box>
    </Box>
  );
}
