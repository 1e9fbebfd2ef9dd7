import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { DirectoryView, HangingCard, PanelView } from "../../api/client";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { AskFirst } from "../../parts/AskFirst";
import { Block } from "../../parts/Block";
import { dateOf } from "../../parts/when";
import { PhotoBlock } from "../panel/PhotoBlock";
import type { CardColors } from "./cardColors";
import { ChangedLine } from "./ChangedLine";

interface Props {
  home: string;
  view: PanelView;
  shown: DirectoryView;
  colors: CardColors;
}

/** The card that hangs in the door, and which of its lines are wrong now. */
export function Hanging({ home, view, shown, colors }: Props) {
  const act = useAct(home);
  const { hanging, to_hang: hung } = shown;
  const { revision } = hung;
  // While every line is right, no other card has to be hung.
  const another = hanging == null || hanging.wrong.length > 0;
  return (
    <Stack spacing={2} data-testid="hanging">
      <Block title="The card in the door">
        {hanging == null ? (
          <Typography>
            No card is recorded as hanging. Once one is, Wayfinder says which of its lines are wrong.
          </Typography>
        ) : (
          <Lines hanging={hanging} />
        )}
        {hanging != null && hanging.wrong.some((line) => line.now !== "") && (
          <Box sx={{ mt: 2 }}>
            <Typography variant="body2" sx={{ mb: 1 }}>
              Strips go over single lines of the card that hangs, at the height of its rows.
            </Typography>
            <Button
              variant="outlined"
              color="inherit"
              href={`/api/homes/${home}/strips.pdf?${new URLSearchParams({ panel: hung.panel, sheet: "letter", colors }).toString()}`}
              target="_blank"
              rel="noreferrer"
            >
              Print strips for these lines
            </Button>
          </Box>
        )}
        {another && shown.too_small == null && (
          <Box sx={{ mt: 2 }}>
            <Typography variant="body2" sx={{ mb: 1 }}>
              Revision {revision} must stand at the foot of the card that hangs. If another number stands there, print
              it again.
            </Typography>
            <Button
              variant="outlined"
              color="inherit"
              onClick={() => void act([{ kind: "card_hung", ...hung }], `Revision ${revision} hangs in the door.`)}
            >
              The card of revision {revision} hangs
            </Button>
          </Box>
        )}
        {hanging != null && (
          <Box sx={{ mt: 2 }}>
            <AskFirst
              words="It was taken down"
              question="Is there no card in the door now?"
              onYes={() =>
                void act(
                  [{ kind: "card_hung", panel: hung.panel, revision: 0, lines: [] }],
                  "No card hangs in the door.",
                )
              }
            />
          </Box>
        )}
      </Block>
      {hanging != null && <PhotoBlock home={home} view={view} only="new_card" />}
    </Stack>
  );
}

function Lines({ hanging }: { hanging: HangingCard }) {
  const { wrong } = hanging;
  const misleads = wrong.filter((line) => line.misleads).length;
  return (
    <>
      <Typography>
        Revision {hanging.revision}, hung on {dateOf(hanging.at)} by {hanging.by}.{" "}
        {wrong.length === 0 && "Every line of it is right."}
        {wrong.length === 1 && "One line of it is wrong now."}
        {wrong.length > 1 && `${wrong.length} lines of it are wrong now.`}
      </Typography>
      {misleads > 0 && (
        <Typography sx={{ fontWeight: 700 }} color="error">
          {misleads === 1 ? "One line sends" : `${misleads} lines send`} the hand to the wrong breaker.
        </Typography>
      )}
      <Box component="ul" data-testid="wrong-lines" sx={{ listStyle: "none", m: 0, p: 0, mt: 1 }}>
        {wrong.map((line, n) => (
          <Box
            component="li"
            key={`${line.number} ${n}`}
            data-number={line.number}
            data-misleads={line.misleads}
            sx={{ borderTop: `1px solid ${tone("rule")}`, py: 1 }}
          >
            <ChangedLine
              number={line.number}
              before={line.hangs}
              after={line.now}
              why={line.why}
              misleads={line.misleads}
            />
          </Box>
        ))}
      </Box>
    </>
  );
}
