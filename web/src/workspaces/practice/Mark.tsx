import Box from "@mui/material/Box";
import type { ReactNode } from "react";

/** One mark, in words. */
export function Mark({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <Box component="dt" sx={{ fontWeight: 700 }}>
        {name}
      </Box>
      <Box component="dd" sx={{ m: 0 }}>
        {children}
      </Box>
    </>
  );
}

/** The marks under each other. */
export function MarkList({ children }: { children: ReactNode }) {
  return (
    <Box
      component="dl"
      data-testid="marks"
      sx={{ display: "grid", gridTemplateColumns: "max-content 1fr", columnGap: 3, rowGap: 0.75, m: 0 }}
    >
      {children}
    </Box>
  );
}
