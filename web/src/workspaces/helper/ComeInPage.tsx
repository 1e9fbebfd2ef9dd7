import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { answer, api, type StepSide, type Me } from "../../api/client";
import { wordsOf } from "../../app/useNotice";
import { Block } from "../../parts/Block";

/** For whoever comes in from the home network: with a helper's code, or with the owner's passphrase. */
export function ComeInPage() {
  const client = useQueryClient();
  const [code, setCode] = useState(location.hash.replace("#", ""));
  const [name, setName] = useState("");
  const [side, setSide] = useState<StepSide>("walk");
  const [passphrase, setPassphrase] = useState("");
  const [error, setError] = useState<unknown>(null);
  const come = (call: Promise<Me>) =>
    void call.then(
      (me) => {
        setError(null);
        // The code is used; it has no business in the address any more.
        history.replaceState(null, "", "/");
        client.setQueryData(["me"], me);
      },
      (refused: unknown) => setError(refused),
    );
  const join = (event: SyntheticEvent) => {
    event.preventDefault();
    come(answer(api.POST("/api/join", { body: { code, name, side } })));
  };
  const signIn = (event: SyntheticEvent) => {
    event.preventDefault();
    come(answer(api.POST("/api/sign-in", { body: { passphrase } })));
  };
  return (
    <Box component="main" sx={{ maxWidth: 520, mx: "auto", p: 2 }}>
      <title>Come in · Wayfinder</title>
      <Typography variant="h1" sx={{ my: 2 }}>
        Wayfinder
      </Typography>
      <Stack spacing={2}>
        {error !== null && (
          <Alert severity="error" variant="outlined" data-testid="come-in-problem">
            {wordsOf(error)}
          </Alert>
        )}
        <Block title="Help with a trace">
          <Stack component="form" spacing={1.5} onSubmit={join}>
            <TextField
              label="Code from the owner’s screen"
              value={code}
              onChange={(e) => setCode(e.target.value)}
              required
              autoComplete="off"
              slotProps={{ htmlInput: { autoCapitalize: "characters", spellCheck: false } }}
            />
            <TextField
              label="Your name, for the logbook"
              value={name}
              onChange={(e) => setName(e.target.value)}
              required
              autoComplete="given-name"
            />
            <RadioGroup value={side} onChange={(_, next) => setSide(next as StepSide)} aria-label="What you do">
              <FormControlLabel value="walk" control={<Radio />} label="I walk and look" />
              <FormControlLabel value="panel" control={<Radio />} label="I stand at the panel and switch" />
            </RadioGroup>
            <Button type="submit" variant="contained" size="large" sx={{ minHeight: 56 }}>
              Come in
            </Button>
          </Stack>
        </Block>
        <Block title="It is my home">
          <Stack component="form" spacing={1.5} onSubmit={signIn}>
            <TextField
              label="Owner’s passphrase"
              type="password"
              value={passphrase}
              onChange={(e) => setPassphrase(e.target.value)}
              required
              autoComplete="current-password"
            />
            <Button type="submit" variant="outlined">
              Sign in
            </Button>
          </Stack>
        </Block>
      </Stack>
    </Box>
  );
}
