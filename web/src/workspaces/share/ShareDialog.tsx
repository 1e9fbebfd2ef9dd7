import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type SharingNow } from "../../api/client";
import { useSharing } from "../../api/queries";
import { tone } from "../../app/theme";
import { wordsOf } from "../../app/useNotice";
import { Code } from "../../parts/Code";
import { Loaded } from "../../parts/Loaded";

/** Opens Wayfinder to the home network, makes codes for helpers, sends people away. */
export function ShareDialog({ home, onClose }: { home: string; onClose: () => void }) {
  const sharing = useSharing(true);
  const client = useQueryClient();
  const [error, setError] = useState<unknown>(null);
  const act = (call: Promise<SharingNow>) =>
    void call.then(
      (now) => {
        setError(null);
        client.setQueryData(["sharing"], now);
      },
      (refused: unknown) => setError(refused),
    );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="share-title">
      <DialogTitle id="share-title">Trace together</DialogTitle>
      <DialogContent>
        {error !== null && (
          <Alert severity="error" variant="outlined" sx={{ mb: 2 }}>
            {wordsOf(error)}
          </Alert>
        )}
        <Loaded query={sharing} what="sharing">
          {(now: SharingNow) =>
            now.open ? <Open now={now} home={home} act={act} /> : <Closed now={now} home={home} act={act} />
          }
        </Loaded>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

interface Part {
  now: SharingNow;
  home: string;
  act: (call: Promise<SharingNow>) => void;
}

const invite = (home: string) => answer(api.POST("/api/sharing/invites", { body: { home } }));

function Closed({ now, home, act }: Part) {
  const [passphrase, setPassphrase] = useState("");
  const [another, setAnother] = useState(!now.has_passphrase);
  const open = () =>
    act(answer(api.POST("/api/sharing", { body: another ? { passphrase } : {} })).then(() => invite(home)));
  return (
    <Stack spacing={2}>
      <Typography>
        Now only this machine can open Wayfinder. Once you share, every device in your home network sees the way in, and
        gets in only with a code that you make here or with your passphrase. Sharing lasts until you end it or Wayfinder
        stops.
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {now.encrypted
          ? "The connection is encrypted, with the certificate that Wayfinder was started with."
          : "The connection is not encrypted: share only in a network whose users you trust."}
      </Typography>
      {another ? (
        <TextField
          label="Your passphrase, as the owner"
          type="password"
          value={passphrase}
          onChange={(e) => setPassphrase(e.target.value)}
          autoComplete="new-password"
          helperText="At least 12 characters: a few words that nobody would guess. You sign in with it from another device."
        />
      ) : (
        <Button color="inherit" onClick={() => setAnother(true)} sx={{ alignSelf: "flex-start" }}>
          Set another passphrase
        </Button>
      )}
      <Button variant="contained" onClick={open}>
        Share on the home network
      </Button>
    </Stack>
  );
}

function Open({ now, home, act }: Part) {
  const mine = now.invites.filter((i) => i.home === home);
  return (
    <Stack spacing={2}>
      {now.addresses.length > 0 ? (
        <Typography>
          On the helper’s phone, in the same network: open <b>{now.addresses[0]}</b>, or scan the code with its camera.
        </Typography>
      ) : (
        <Alert severity="warning">This machine is in no network now. Connect it first.</Alert>
      )}
      {mine.map((i) => (
        <Box key={i.code} sx={{ display: "flex", gap: 2, alignItems: "center" }}>
          {i.qr && <Code code={i.qr} side={168} label="QR code with the address" />}
          <div>
            <Typography variant="h1" component="p" sx={{ fontWeight: 800 }} data-testid="code">
              {i.code}
            </Typography>
            <Typography variant="body2" color="text.secondary">
              for one helper, {Math.max(1, Math.round(i.seconds_left / 60))} min left
            </Typography>
          </div>
        </Box>
      ))}
      <Button variant="outlined" onClick={() => act(invite(home))}>
        {mine.length === 0 ? "Make a code for a helper" : "Another code, for another helper"}
      </Button>
      <Box component="section" aria-label="Who is in">
        <Typography variant="h3">Who is in</Typography>
        {now.people.length === 0 && <Typography variant="body2">Nobody yet.</Typography>}
        {now.people.map((person) => (
          <Box
            key={person.id}
            sx={{ display: "flex", alignItems: "center", gap: 1, borderBottom: `1px solid ${tone("rule")}` }}
          >
            <Typography sx={{ flex: 1 }}>
              <b>{person.name ?? "Owner, from another device"}</b>
              {person.side && (person.side === "walk" ? ", walks and looks" : ", at the panel")}
              {person.seconds_ago > 60 && `, not heard from for ${Math.round(person.seconds_ago / 60)} min`}
            </Typography>
            <Button
              color="inherit"
              onClick={() =>
                act(answer(api.DELETE("/api/sharing/people/{id}", { params: { path: { id: person.id } } })))
              }
            >
              Send away
            </Button>
          </Box>
        ))}
      </Box>
      <Button color="error" variant="outlined" onClick={() => act(answer(api.DELETE("/api/sharing")))}>
        End sharing and send everybody away
      </Button>
    </Stack>
  );
}
