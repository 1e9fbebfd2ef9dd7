import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { tone } from "../app/theme";

/** A ruled block with a heading. */
export function Block({ title, children, loud = false }: { title?: ReactNode; children: ReactNode; loud?: boolean }) {
  return (
    <Box
      component="section"
      sx={{
        bgcolor: "background.paper",
        border: loud ? `3px solid ${tone("blaze")}` : `1px solid ${tone("rule")}`,
        borderRadius: 1,
        p: 2,
      }}
    >
      {title !== undefined && (
        <Typography variant="h2" sx={{ mb: 1 }}>
          {title}
        </Typography>
      )}
      {children}
    </Box>
  );
}
