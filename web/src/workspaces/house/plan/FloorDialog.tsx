import type { HomeOverview } from "../../../api/client";
import { useRecord } from "../../../api/record";
import { useNotice } from "../../../app/useNotice";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";

const LEVELS = [
  ["2", "two above the ground floor"],
  ["1", "above the ground floor"],
  ["0", "on the ground"],
  ["-1", "below the ground floor"],
  ["-2", "two below the ground floor"],
] as const;
type Values = { name: string; level: (typeof LEVELS)[number][0] };
const ABOVE: Values = { name: "", level: "1" };
const { Text, One } = fieldsOf<Values>();

interface Props {
  home: HomeOverview;
  onClose: () => void;
  onKept: (name: string) => void;
}

/** Another floor: its name, and where it is in the order of floors. */
export function FloorDialog({ home, onClose, onKept }: Props) {
  const record = useRecord(home.id);
  const say = useNotice();
  return (
    <FormDialog
      title="Another floor"
      keep={`floor ${home.id}`}
      recorded={ABOVE}
      save="Save and go to it"
      onSave={async ({ name, level }) => {
        await record([{ kind: "floor_placed", floor: name, level: Number(level) }]);
        say.done(`${name}: type its first room`);
        onKept(name.trim());
      }}
      onClose={onClose}
    >
      <Text name="name" label="Name of the floor" placeholder="loft" required autoFocus />
      <One name="level" label="Where it is" options={LEVELS} />
    </FormDialog>
  );
}
