import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useAct } from "../../app/useAct";
import { Fold } from "../../parts/Fold";

/** Where the home's page can be opened for good: it is printed on every card as a code for cameras. */
export function LastingAddress({ home, address }: { home: string; address: string }) {
  const act = useAct(home);
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? address;
  const record = async (given: string | null) => {
    const said = given === null ? "No code is printed any more." : "The code stands on every card from now on.";
    if (await act([{ kind: "address_given", address: given }], said)) setTyped(null);
  };
  return (
    <Fold label="code for cameras" onPage>
      <Typography variant="body2" sx={{ maxWidth: 640 }}>
        Where a phone in the house reaches Wayfinder at an address that stays the same, a code on the card opens this
        page. It shows nothing to strangers: the owner signs in, a helper needs a code of the day. Never pass this
        machine’s own address (127.0.0.1) on to a network: whoever comes through it counts as the owner. Without a
        lasting address nothing is printed.
      </Typography>
      <Stack
        component="form"
        direction="row"
        useFlexGap
        spacing={1.5}
        sx={{ flexWrap: "wrap", alignItems: "center", mt: 1 }}
        onSubmit={(event) => {
          event.preventDefault();
          void record(shown.trim());
        }}
      >
        <TextField
          label="Lasting address of this page"
          value={shown}
          onChange={(event) => setTyped(event.target.value)}
          placeholder={`https://…/h/${home}`}
          slotProps={{ htmlInput: { inputMode: "url", maxLength: 200, autoCapitalize: "off", spellCheck: false } }}
          sx={{ width: { xs: "100%", sm: 420 } }}
        />
        <Button type="submit" variant="outlined" color="inherit" disabled={shown.trim() === "" || shown === address}>
          Print its code
        </Button>
        {address !== "" && (
          <Button color="inherit" onClick={() => void record(null)}>
            Print no code
          </Button>
        )}
      </Stack>
    </Fold>
  );
}
