import Box from "@mui/material/Box";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { Tag } from "../../drawing/Tag";

interface Props {
  /** The circuit's number. */
  number: string;
  /** What stands there and no longer shall. */
  before: string;
  /** What shall stand there. */
  after: string;
  /** Why, a sentence each. */
  why: readonly string[];
  /** The words send the hand to the wrong breaker. */
  misleads?: boolean;
}

/** A line of a card with other words: the old ones struck out, the new ones, and why. */
export function ChangedLine({ number, before, after, why, misleads = false }: Props) {
  return (
    <>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", minWidth: 0 }}>
        <Tag text={number} kind={misleads ? "contradictory" : "plain"} />
        <Box component="del" sx={{ overflowWrap: "anywhere", minWidth: 0 }}>
          {before}
        </Box>
      </Stack>
      <Box sx={{ fontWeight: 700, mt: 0.5, overflowWrap: "anywhere" }}>{after}</Box>
      {why.map((sentence) => (
        <Typography key={sentence} variant="body2">
          {sentence}
        </Typography>
      ))}
    </>
  );
}
