import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { CardCell, CircuitWorded, Fact } from "../../api/client";
import { useRecord } from "../../api/record";
import { useAct } from "../../app/useAct";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";

interface Values {
  text: string;
}
const { Text } = fieldsOf<Values>();

interface Props {
  home: string;
  cell: CardCell;
  own: CircuitWorded;
  onClose: () => void;
}

/** Own words for a line of the card, over those worked out. */
export function OwnWords({ home, cell, own, onClose }: Props) {
  const record = useRecord(home);
  const act = useAct(home);
  const fact = (text: string): Fact => ({ kind: "circuit_worded", ...own, text });
  return (
    <FormDialog
      title={`Own words for ${cell.number}`}
      keep={`own words ${home} ${own.breaker}`}
      recorded={{ text: own.text }}
      onSave={({ text }) => record([fact(text)])}
      onClose={onClose}
    >
      <Typography>
        Worked out: <b>{cell.worded}</b>
      </Typography>
      <Text
        name="text"
        label="What the card says"
        help="The place, then what is there; nothing about who lives there. Empty: what is worked out."
        autoFocus
      />
      {own.text !== "" && (
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => {
            void act([fact("")], `${cell.number}: the card says what is worked out.`).then((done) => {
              if (done) onClose();
            });
          }}
        >
          Take the words worked out
        </Button>
      )}
    </FormDialog>
  );
}
