import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { SurveySide } from "../../api/client";
import { Block } from "../../parts/Block";
import { SurveyReading } from "./SurveyReading";

interface Props {
  home: string;
  side: SurveySide;
  title: string;
}

/** What one of two does for the next reading. */
export function SurveySideCard({ home, side, title }: Props) {
  const [reads, setReads] = useState(false);
  const { step } = side;
  return (
    <Block title={title} loud={side.reads}>
      <Typography data-testid="survey-side" sx={{ fontSize: "1.1rem", fontWeight: 700 }}>
        {side.words}
      </Typography>
      {side.switch_on.length > 0 && (
        <Box component="ul" aria-label="To be switched on" sx={{ my: 1, pl: 2.5 }}>
          {side.switch_on.map((name) => (
            <li key={name}>{name}</li>
          ))}
        </Box>
      )}
      {side.cautions.map((caution) => (
        <Alert key={caution} severity="warning" variant="outlined" sx={{ mt: 1 }}>
          {caution}
        </Alert>
      ))}
      {side.reads && step != null && (
        <Button variant="contained" size="large" onClick={() => setReads(true)} sx={{ mt: 2 }}>
          Write the reading down
        </Button>
      )}
      {reads && step != null && <SurveyReading home={home} step={step} onClose={() => setReads(false)} />}
    </Block>
  );
}
