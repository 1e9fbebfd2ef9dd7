import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type DamagedInList } from "../../api/client";
import { Block } from "../../parts/Block";
import { FormDialog } from "../../parts/form/FormDialog";
import { CopyHome } from "./HomeDialogs";

/** Homes that are not as they were written: what is wrong, what can be done. The others work. */
export function DamagedHomes({ homes }: { homes: readonly DamagedInList[] }) {
  const [saved, setSaved] = useState<DamagedInList | null>(null);
  const [deleted, setDeleted] = useState<DamagedInList | null>(null);
  return (
    <Block title="Damaged">
      <Stack component="ul" spacing={2} sx={{ listStyle: "none", p: 0, m: 0 }} data-testid="damaged">
        {homes.map((home) => (
          <Box component="li" key={home.id}>
            <Typography sx={{ overflowWrap: "anywhere" }}>
              <b>{home.name}</b>: {home.what}. It is not opened, so that nothing is added to it. The other homes work.
            </Typography>
            <Typography sx={{ my: 1 }}>
              If you have a copy of the data folder, <code>wayfinder restore</code> puts it into a new folder. What was
              written since the copy, in any home, is not in it.{" "}
              {home.readable > 0
                ? `Without a copy, the first ${home.readable} lines can be saved as a home of their own. What was proven by later lines is open again there.`
                : "Without a copy nothing of it can be saved."}
            </Typography>
            <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap" }}>
              {home.readable > 0 && (
                <Button
                  variant="outlined"
                  onClick={() => setSaved(home)}
                  aria-label={`Save what can be read of ${home.name}`}
                >
                  Save what can be read
                </Button>
              )}
              <Button color="inherit" onClick={() => setDeleted(home)} aria-label={`Delete ${home.name}`}>
                Delete
              </Button>
            </Stack>
          </Box>
        ))}
      </Stack>
      {saved !== null && <CopyHome home={saved} readable={saved.readable} onClose={() => setSaved(null)} />}
      {deleted !== null && <DeleteDamaged home={deleted} onClose={() => setDeleted(null)} />}
    </Block>
  );
}

function DeleteDamaged({ home, onClose }: { home: DamagedInList; onClose: () => void }) {
  const client = useQueryClient();
  const remove = async () => {
    await answer(api.DELETE("/api/homes/{home}", { params: { path: { home: home.id } } }));
    await client.invalidateQueries({ queryKey: ["homes"] });
  };
  return (
    <FormDialog
      title={`Delete ${home.name}?`}
      keep={`delete ${home.id}`}
      recorded={{}}
      save="Delete it"
      onSave={remove}
      onClose={onClose}
    >
      <Typography>
        Save first what can be read of it. For 30 days it can be taken back on this page, as it is now; after that its
        lines are gone.
      </Typography>
    </FormDialog>
  );
}
