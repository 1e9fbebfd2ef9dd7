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
