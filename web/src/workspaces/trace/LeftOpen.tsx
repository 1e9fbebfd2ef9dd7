import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { EndsOpen, HomeOverview } from "../../api/client";
import { Block } from "../../parts/Block";
import type { Looks } from "./useLooks";

interface Props {
  home: HomeOverview;
  left: EndsOpen[];
  looks: Looks;
}

/** What is still open at the end: for each point why, and what to do about it. */
export function LeftOpen({ home, left, looks }: Props) {
  if (left.length === 0) return null;
  return (
    <Block title={left.length === 1 ? "One point is still open" : `${left.length} points are still open`}>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 2 }} data-testid="left-open">
        {left.map((end) => (
          <Box component="li" key={end.point}>
            <Typography component="h3" variant="h3">
              {end.name}
            </Typography>
            <Typography>{end.reason}</Typography>
            <Typography color="text.secondary">{end.advice}</Typography>
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1 }}>
              {end.acts.map((act) =>
                act.does === "open" ? (
                  <Button key={act.words} variant="outlined" component={Link} to={`/h/${home.id}/${act.screen}`}>
                    {act.words}
                  </Button>
                ) : (
                  <Button key={act.words} variant="outlined" onClick={() => looks.act(act.facts)}>
                    {act.words}
                  </Button>
                ),
              )}
            </Stack>
          </Box>
        ))}
      </Box>
    </Block>
  );
}
