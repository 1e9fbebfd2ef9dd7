import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";

/** An empty screen: what to do first, with one button. */
export function Empty({ title, words, children }: { title: string; words: string; children?: ReactNode }) {
  return (
    <Stack spacing={1.5} sx={{ alignItems: "flex-start", maxWidth: 560, py: 2 }}>
      <Typography variant="h2">{title}</Typography>
      <Typography color="text.secondary">{words}</Typography>
      {children}
    </Stack>
  );
}
