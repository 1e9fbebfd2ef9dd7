import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import type { Drift } from "../../api/client";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { ChangedLine } from "./ChangedLine";

/** Own words that no longer match what is known, each with the two answers to it. */
export function Drifts({ home, drifts }: { home: string; drifts: readonly Drift[] }) {
  const act = useAct(home);
  const takeAll = drifts.length > 1 && (
    <Button
      variant="outlined"
      color="inherit"
      fullWidth
      onClick={() =>
        void act(
          drifts.map((drift) => drift.take),
          "The card says what is worked out.",
        )
      }
    >
      Take all {drifts.length}
    </Button>
  );
  return (
    <Box component="section" aria-label="Own words to look at">
      <Box component="ul" data-testid="drifts" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {drifts.map((drift) => (
          <Box
            component="li"
            key={drift.breaker}
            data-tag={drift.tag}
            data-misleads={drift.misleads}
            sx={{ borderTop: `1px solid ${tone("rule")}`, py: 1.5 }}
          >
            <ChangedLine
              number={drift.tag}
              before={drift.own}
              after={drift.worded}
              why={drift.why}
              misleads={drift.misleads}
            />
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 0.5 }}>
              <Button
                color="inherit"
                variant="outlined"
                aria-label={`Take these words for ${drift.tag}`}
                onClick={() => void act([drift.take], `${drift.tag}: the card says what is worked out.`)}
              >
                Take these words
              </Button>
              {drift.keep != null && <Keep act={act} tag={drift.tag} keep={drift.keep} />}
            </Stack>
          </Box>
        ))}
      </Box>
      {takeAll}
    </Box>
  );
}

interface KeepProps {
  act: ReturnType<typeof useAct>;
  tag: string;
  keep: NonNullable<Drift["keep"]>;
}

function Keep({ act, tag, keep }: KeepProps) {
  return (
    <Button
      color="inherit"
      aria-label={`Keep mine for ${tag}`}
      onClick={() => void act([keep], `${tag}: your words stay, with what is known now.`)}
    >
      Keep mine
    </Button>
  );
}
