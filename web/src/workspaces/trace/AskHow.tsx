import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { TraceSetup } from "../../api/client";
import { Block } from "../../parts/Block";
import { Crew } from "./Crew";

interface Props {
  setup: TraceSetup;
  onBegin: (setup: TraceSetup) => void;
}

/** Asked once, before the first step: alone or with whom, and with what. */
export function AskHow({ setup, onBegin }: Props) {
  const [way, setWay] = useState(setup);
  return (
    <Box data-weight="loud" data-testid="ask-how" sx={{ maxWidth: 560 }}>
      <Block title="Before you begin: who traces, and with what?">
        <Typography color="text.secondary">
          The order of the steps follows from it. It can be changed at any time under &ldquo;How to trace&rdquo;.
        </Typography>
        <Crew setup={way} onSetup={setWay} />
        <Button variant="contained" data-main onClick={() => onBegin(way)}>
          Begin
        </Button>
      </Block>
    </Box>
  );
}
