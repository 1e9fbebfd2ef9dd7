import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type HomeInList } from "../../api/client";
import { outbox } from "../../api/outbox";
import { draft, myName, newId } from "../../api/record";
import { useNotice, wordsOf } from "../../app/useNotice";
import { FormDialog } from "../../parts/form/FormDialog";
import { fieldsOf } from "../../parts/form/fieldsOf";

interface Props {
  home: HomeInList;
  onClose: () => void;
}

interface Named {
  name: string;
}

const { Text } = fieldsOf<Named>();

/** The name of a home is a line of its logbook, like everything else. */
export function RenameHome({ home, onClose }: Props) {
  const client = useQueryClient();
  const save = async ({ name }: Named) => {
    await outbox.send(home.id, [draft({ kind: "home_described", name })]);
    await client.invalidateQueries({ queryKey: ["homes"] });
  };
  return (
    <FormDialog
      title={`Rename ${home.name}`}
      keep={`rename ${home.id}`}
      recorded={{ name: home.name }}
      onSave={save}
      onClose={onClose}
    >
      <Text name="name" label="New name" required autoFocus />
    </FormDialog>
  );
}

interface CopyProps {
  home: { id: string; name: string };
  /** So many lines of a damaged home can be read; those are copied. */
  readable?: number;
  onClose: () => void;
}

/** A copy has every line and photo, or those that can be read; from then on each goes its own way. */
export function CopyHome({ home, readable, onClose }: CopyProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const isDamaged = readable !== undefined;
  const save = async ({ name }: Named) => {
    const copy = newId();
    const asked = { params: { path: { home: home.id } }, body: { home: copy, name, by: myName() } };
    await answer(isDamaged ? api.POST("/api/homes/{home}/salvage", asked) : api.POST("/api/homes/{home}/copy", asked));
    await client.invalidateQueries({ queryKey: ["homes"] });
    await navigate(`/h/${copy}`);
  };
  return (
    <FormDialog
      title={isDamaged ? `Save what can be read of ${home.name}` : `Copy ${home.name}`}
      keep={`copy ${home.id}`}
      recorded={{ name: isDamaged ? `${home.name}, saved` : `${home.name}, copy` }}
      save={isDamaged ? "Save" : "Copy"}
      onSave={save}
      onClose={onClose}
    >
      <Typography>
        {isDamaged
          ? `Its first ${readable} lines and its photos become a home of their own. The damaged one stays as it is.`
          : "The copy has every line and photo. What is written in one from then on is not in the other."}
      </Typography>
      <Text name="name" label={isDamaged ? "Name of what is saved" : "Name of the copy"} required autoFocus />
    </FormDialog>
  );
}

/** Its file is saved first; for 30 days it can be taken back besides. */
export function DeleteHome({ home, onClose }: Props) {
  const client = useQueryClient();
  const say = useNotice();
  const id = useId();
  const [saved, setSaved] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const path = { home: home.id };
  const takeBack = () => {
    answer(api.POST("/api/homes/{home}/take-back", { params: { path } })).then(
      () => void client.invalidateQueries({ queryKey: ["homes"] }),
      say.problem,
    );
  };
  const remove = async () => {
    try {
      await answer(api.DELETE("/api/homes/{home}", { params: { path } }));
      await client.invalidateQueries({ queryKey: ["homes"] });
      onClose();
      say.done(`${home.name} is deleted. For 30 days it can be taken back on this page.`, takeBack);
    } catch (refused) {
      setError(refused);
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby={id}>
      <DialogTitle id={id}>Delete {home.name}?</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          <Typography>
            Its logbook has {home.seq} lines. Save its file first: with it the home can be opened again here or on
            another machine, at any time.
          </Typography>
          <Button variant="outlined" href={`/api/homes/${home.id}/export`} download onClick={() => setSaved(true)}>
            Save its file
          </Button>
          <Typography>
            For 30 days it can be taken back on this page. Until then nobody sees it or writes in it.
          </Typography>
          {error !== null && (
            <Alert severity="error" variant="outlined">
              {wordsOf(error)}
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Keep it
        </Button>
        <Button variant="contained" color="error" disabled={!saved} onClick={() => void remove()}>
          Delete it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
