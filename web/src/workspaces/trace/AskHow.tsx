import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Method, TraceSetup } from "../../api/client";
import { howFar, useMethods } from "../../api/queries";
import { Block } from "../../parts/Block";
import { Crew } from "./Crew";
import { MethodRadios } from "./MethodRadios";

interface Props {
  home: string;
  setup: TraceSetup;
  onBegin: (setup: TraceSetup) => void;
}

/** Asked once, before the first step: alone or with whom, with what, and how. The quickest method is offered. */
export function AskHow({ home, setup, onBegin }: Props) {
  const [way, setWay] = useState(setup);
  const [chosen, setChosen] = useState<Method | null>(null);
  const methods = useMethods(home, true, "before");
  // The minutes are those of the crew that is entered; of another one they are told after the first step.
  const isAsEntered = JSON.stringify({ ...way, school: setup.school }) === JSON.stringify(setup);
  const workedOut = methods.data?.methods ?? undefined;
  const minutes = isAsEntered ? workedOut : undefined;
  const [quickest] = [...(workedOut ?? [])].sort((a, b) => a.minutes - b.minutes);
  const school = chosen ?? quickest?.method ?? way.school;
  return (
    <Box data-weight="loud" data-testid="ask-how" sx={{ maxWidth: 560 }}>
      <Block title="Before you begin: who traces, and with what?">
        <Typography color="text.secondary">
          The order of the steps follows from it. It can be changed at any time under &ldquo;How to trace&rdquo;.
        </Typography>
        <Crew setup={way} onSetup={setWay} />
        <Typography variant="h3" component="h2" sx={{ mt: 2 }}>
          How?
        </Typography>
        <Typography variant="body2" color="text.secondary">
          {workedOut === undefined && !methods.isError
            ? howFar(methods.data)
            : "With each of them a point is proven by one breaker alone."}{" "}
          {quickest && isAsEntered && "The quickest is chosen."}
          {quickest && !isAsEntered && "What each takes for this crew is told after the first step."}
        </Typography>
        <MethodRadios chosen={school} tone={way.tone} minutes={minutes} left="" onChoose={setChosen} />
        <Button variant="contained" data-main sx={{ mt: 1 }} onClick={() => onBegin({ ...way, school })}>
          Begin
        </Button>
      </Block>
    </Box>
  );
}
