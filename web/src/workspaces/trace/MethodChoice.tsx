import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { TraceSetup } from "../../api/client";
import { howFar, useMethods } from "../../api/queries";
import { Block } from "../../parts/Block";
import { Crew } from "./Crew";
import { MethodRadios } from "./MethodRadios";

interface Props {
  home: string;
  setup: TraceSetup;
  onSetup: (setup: TraceSetup) => void;
}

/** How it is traced, by whom and with what; with the minutes that each method would take from here. */
export function MethodChoice({ home, setup, onSetup }: Props) {
  const [asked, setAsked] = useState(false);
  const methods = useMethods(home, asked);
  const minutes = methods.data?.methods ?? undefined;
  return (
    <Block title="How to trace">
      <MethodRadios
        chosen={setup.school}
        tone={setup.tone}
        minutes={minutes}
        left=" left"
        onChoose={(school) => onSetup({ ...setup, school })}
      />
      <Crew setup={setup} onSetup={onSetup} />
      {!asked && (
        <Button variant="outlined" onClick={() => setAsked(true)}>
          What each would take
        </Button>
      )}
      {asked && minutes === undefined && !methods.isError && (
        <Typography variant="body2" color="text.secondary" role="status">
          {howFar(methods.data)}
        </Typography>
      )}
      {methods.isError && (
        <Button variant="outlined" onClick={() => void methods.refetch()}>
          That could not be worked out. Try again
        </Button>
      )}
      {minutes !== undefined && (
        <Typography variant="body2" color="text.secondary">
          For{" "}
          {setup.alone
            ? "one person"
            : (setup.walkers ?? 1) === 1
              ? "two people"
              : `${(setup.walkers ?? 1) + 1} people`}{" "}
          at your own pace, after every point was seen lit, with the looks that show that breakers latched. With every
          method a point is proven by one breaker alone.
        </Typography>
      )}
    </Block>
  );
}
