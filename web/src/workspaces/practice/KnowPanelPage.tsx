import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { KnownPanel, PanelQuestion, PowerPlace } from "../../api/client";
import { nowKnowsPanel, useOwnPanels } from "../../api/lessons";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";

/** How the power comes from the transformer to a point, by the home's own panels; then it is asked back. */
export function KnowPanelPage() {
  const home = useThisHome();
  const panels = useOwnPanels(home.id);
  return (
    <Loaded query={panels} what="panels">
      {(all: KnownPanel[]) => (
        <Box sx={{ maxWidth: 900, display: "grid", gap: 3 }}>
          <Typography variant="h1">Know your panel</Typography>
          {all.length === 0 && (
            <Typography>
              No panel is described yet. <Link to={`/h/${home.id}/panel`}>Describe it first</Link>; then this page tells
              how the power comes to it.
            </Typography>
          )}
          {all.map((panel) => (
            <Box
              key={panel.panel}
              sx={{
                display: "grid",
                gap: 3,
                alignItems: "start",
                gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 6fr) minmax(0, 5fr)" },
              }}
            >
              <Box>
                <Typography variant="h2" sx={{ mb: 1 }}>
                  {panel.name}
                </Typography>
                <Road road={panel.road} />
              </Box>
              <Questions key={panel.questions.length} panel={panel} home={home.id} />
            </Box>
          ))}
        </Box>
      )}
    </Loaded>
  );
}

/** What stays live with the main off stands in a red band; words say so, too. */
function Road({ road }: { road: readonly PowerPlace[] }) {
  return (
    <Box component="ol" data-testid="power-way" sx={{ listStyle: "none", m: 0, p: 0 }}>
      {road.map((place, n) => (
        <Box
          component="li"
          key={place.name}
          sx={{
            borderLeft: `8px solid ${place.live === true ? tone("danger") : tone("rule")}`,
            pl: 2,
            pb: n === road.length - 1 ? 0 : 2,
          }}
        >
          <Typography sx={{ fontWeight: 700 }}>{place.name}</Typography>
          <Typography>{place.words}</Typography>
          {place.live != null && (
            <Typography variant="body2" color={place.live ? "error" : "text.secondary"} sx={{ fontWeight: 700 }}>
              {place.stays}
            </Typography>
          )}
        </Box>
      ))}
    </Box>
  );
}

function Questions({ panel, home }: { panel: KnownPanel; home: string }) {
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState<number | null>(null);
  const [right, setRight] = useState(0);
  const question = panel.questions[at];
  if (panel.questions.length === 0) {
    return (
      <Block title="Nothing to ask yet">
        <Typography>
          Read where the main is and how neutral and ground stand, in <Link to={`/h/${home}/panel`}>Panel</Link>; then
          it is asked back here.
        </Typography>
      </Block>
    );
  }
  if (question === undefined) {
    const all = right === panel.questions.length;
    return (
      <Block title={all ? "You know your panel" : `${right} of ${panel.questions.length} right`}>
        <Typography sx={{ mb: 1.5 }}>
          {all ? "Every answer was right." : "Look at the way of the power once more, then answer again."}
        </Typography>
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
          <Button
            variant={all ? "outlined" : "contained"}
            onClick={() => {
              setAt(0);
              setRight(0);
            }}
          >
            Once more
          </Button>
          <Button variant={all ? "contained" : "outlined"} component={Link} to={`/h/${home}/practice`}>
            To the lessons
          </Button>
        </Stack>
      </Block>
    );
  }
  const choose = (choice: number) => {
    setSaid(choice);
    const now = right + Number(choice === question.right);
    setRight(now);
    if (at === panel.questions.length - 1 && now === panel.questions.length) nowKnowsPanel();
  };
  return (
    <Asked
      question={question}
      title={`Question ${at + 1} of ${panel.questions.length}`}
      said={said}
      onSay={choose}
      onNext={() => {
        setSaid(null);
        setAt(at + 1);
      }}
    />
  );
}

interface AskedProps {
  question: PanelQuestion;
  title: string;
  said: number | null;
  onSay: (choice: number) => void;
  onNext: () => void;
}

function Asked({ question, title, said, onSay, onNext }: AskedProps) {
  return (
    <Block loud title={title}>
      <Typography variant="h3" component="p" data-testid="panel-question" sx={{ mb: 1.5 }}>
        {question.ask}
      </Typography>
      {said === null ? (
        <Stack spacing={1}>
          {question.choices.map((choice, n) => (
            <Button key={choice} variant="outlined" color="inherit" onClick={() => onSay(n)} sx={{ minHeight: 48 }}>
              {choice}
            </Button>
          ))}
        </Stack>
      ) : (
        <>
          <Alert severity={said === question.right ? "info" : "warning"} variant="outlined" sx={{ mb: 1.5 }}>
            {said === question.right ? "Right" : "No"}: {question.choices[question.right]}. {question.why}
          </Alert>
          <Button variant="contained" onClick={onNext} autoFocus>
            Go on
          </Button>
        </>
      )}
    </Block>
  );
}
