import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import type { Panel } from "../../api/client";
import { useRecord } from "../../api/record";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";

type Values = { space: string; against: string; volts: string };
const NOTHING: Values = { space: "", against: "", volts: "" };
const { Amount } = fieldsOf<Values>();

interface Props {
  home: string;
  panel: Panel;
  open: boolean;
  onClose: () => void;
}

/** A voltage read between two hot terminals: which leg a row is on. */
export function LegDialog({ home, panel, open, onClose }: Props) {
  const record = useRecord(home);
  if (!open) return null;
  return (
    <FormDialog
      title="A reading between two spaces"
      keep={`reading ${home} ${panel.id}`}
      recorded={NOTHING}
      onSave={({ space, against, volts }) =>
        record(
          [{ kind: "leg_read", panel: panel.id, space: Number(space), against: Number(against), volts: Number(volts) }],
          { instrument: "meter" },
        )
      }
      onClose={onClose}
    >
      <Alert severity="error" variant="outlined">
        With the cover off this is live work with arc-flash danger, for qualified people only. At the outlets of two
        circuits the same can be read between their hot slots.
      </Alert>
      <Typography variant="body2" color="text.secondary">
        0 V is one leg; 240 V (208 V) is two. The reading overrides what the numbering tells.
      </Typography>
      <Amount name="space" label="Space" whole required autoFocus />
      <Amount name="against" label="Read against space" whole required />
      <Amount name="volts" label="The meter shows, volts" whole required />
    </FormDialog>
  );
}
