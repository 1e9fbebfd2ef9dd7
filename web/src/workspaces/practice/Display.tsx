import Box from "@mui/material/Box";
import { tone } from "../../app/theme";

/** The display of an instrument. */
export function Display({ text }: { text: string }) {
  return (
    <Box
      data-testid="display"
      sx={{
        fontFamily: "Overpass Variable",
        fontWeight: 800,
        fontSize: "1.4rem",
        border: `2px solid ${tone("ink")}`,
        borderRadius: 1,
        px: 1.5,
        py: 0.75,
      }}
    >
      {text}
    </Box>
  );
}
