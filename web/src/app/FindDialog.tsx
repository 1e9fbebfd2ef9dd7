import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import DialogContent from "@mui/material/DialogContent";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useState, type KeyboardEvent } from "react";
import { useNavigate } from "react-router";
import type { Found } from "../api/client";
import { useFind } from "../api/queries";
import { Tag } from "../drawing/Tag";
import { tone } from "./theme";

/** Where a thing that was found is shown. */
function placeOf(home: string, found: Found): string {
  switch (found.found) {
    case "room":
      return `/h/${home}/house?at=${encodeURIComponent(`r:${found.room}`)}`;
    case "point":
      return `/h/${home}/house?at=${encodeURIComponent(`p:${found.point}`)}`;
    case "breaker":
      return `/h/${home}/panel/${found.panel}?at=${encodeURIComponent(`b:${found.breaker}`)}`;
  }
}

/** Anything by a few letters: what feeds it, what it feeds, and what else goes dark. */
export function FindDialog({ home, onClose }: { home: string; onClose: () => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const asked = useDeferredValue(text);
  const find = useFind(home, asked);
  const found = text.trim() === "" ? [] : (find.data ?? []);
  const go = (one: Found | undefined) => {
    if (!one) return;
    onClose();
    void navigate(placeOf(home, one));
  };
  const key = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown") setAt(Math.min(at + 1, found.length - 1));
    else if (event.key === "ArrowUp") setAt(Math.max(at - 1, 0));
    else if (event.key === "Enter") go(found[at]);
    else return;
    event.preventDefault();
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="find-title">
      <DialogContent>
        <Typography id="find-title" variant="h2" sx={{ mb: 1.5 }}>
          Find a room, a point, a breaker
        </Typography>
        <TextField
          label="A few letters or a number"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
          }}
          onKeyDown={key}
          autoFocus
          fullWidth
          autoComplete="off"
          sx={{ my: 0.5 }}
        />
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, minHeight: 240 }} data-testid="found">
          {found.map((one, n) => (
            <Box component="li" key={`${one.found}${one.name}`} sx={{ borderBottom: `1px solid ${tone("rule")}` }}>
              <Box
                component="button"
                type="button"
                onClick={() => go(one)}
                sx={{
                  font: "inherit",
                  color: "inherit",
                  background: n === at ? tone("rail") : "none",
                  border: 0,
                  width: "100%",
                  textAlign: "left",
                  p: 1,
                  cursor: "pointer",
                }}
              >
                <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
                  <strong>{one.name}</strong>
                  {one.tag != null && <Tag text={one.tag} kind={one.tag_kind ?? "plain"} />}
                </Box>
                <div>{one.feed}</div>
                {one.dark_with.length > 0 && (
                  <Typography variant="body2" color="text.secondary">
                    Goes dark with it:{" "}
                    {one.dark_with
                      .slice(0, 6)
                      .map((d) => d.name)
                      .join("; ")}
                    {one.dark_with.length > 6 && ` and ${one.dark_with.length - 6} more`}
                  </Typography>
                )}
              </Box>
            </Box>
          ))}
          {text.trim() !== "" && find.data?.length === 0 && (
            <Typography component="li" color="text.secondary" sx={{ py: 2 }}>
              Nothing here has such a name or number.
            </Typography>
          )}
        </Box>
      </DialogContent>
    </Dialog>
  );
}
