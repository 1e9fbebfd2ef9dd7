import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { BreakerView, Fact, HomeOverview, TraceView } from "../../api/client";
import { BigBlade } from "../../drawing/BigBlade";
import { bladeOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { Said } from "./Said";
import type { Looks } from "./useLooks";

interface SwitchToProps {
  home: HomeOverview;
  looks: Looks;
  off: string[];
  on: string[];
  why: string;
}

/** Several handles at once: which go off and which go on again. */
export function SwitchTo({ home, looks, off, on, why }: SwitchToProps) {
  const [cannot, setCannot] = useState(false);
  const [reason, setReason] = useState("");
  const done = () =>
    looks.record([
      ...on.map((breaker): Fact => ({ kind: "breaker_switched", breaker, to: "on" })),
      ...off.map((breaker): Fact => ({ kind: "breaker_switched", breaker, to: "off" })),
    ]);
  const row = (ids: string[]) => (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 1, fontSize: "1.5rem" }}>
      {ids.map((id) => (
        <Tag key={id} text={bladeOf(home, id)?.tag ?? "?"} size="large" />
      ))}
    </Box>
  );
  return (
    <>
      <Said
        over="At the panel"
        title={`Turn ${(off.length || on.length) === 1 ? "this" : "these"} ${off.length > 0 ? "OFF" : "ON again"}`}
        loud
      >
        {off.length > 0 && row(off)}
        {on.length > 0 && (
          <>
            {off.length > 0 && <Typography variant="h2">and {on.length > 1 ? "these" : "this"} ON again</Typography>}
            {row(on)}
            <Typography variant="body2">Push {on.length > 1 ? "each" : "it"} fully off first, then on.</Typography>
          </>
        )}
        {off.length > 0 && (
          <Typography variant="body2" sx={{ my: 1 }}>
            Tell everybody in the house first. Check that no medical device, pump or server depends on{" "}
            {off.length > 1 ? "them" : "it"}.
          </Typography>
        )}
        <Stack direction="row" spacing={1.5}>
          <Button variant="contained" size="large" onClick={done}>
            {off.length + on.length > 1
              ? "Done, all are switched"
              : off.length > 0
                ? "Done, it is off"
                : "Done, it is on"}
          </Button>
          {off.length > 0 && (
            <Button variant="outlined" size="large" aria-expanded={cannot} onClick={() => setCannot(!cannot)}>
              Can’t
            </Button>
          )}
        </Stack>
        {cannot && (
          <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 2 }}>
            {off.map((id) => (
              <Button
                key={id}
                variant="outlined"
                onClick={() =>
                  looks.record([{ kind: "breaker_kept", breaker: id, kept: "on", reason: reason || "as said" }])
                }
              >
                {bladeOf(home, id)?.tag} must stay on
              </Button>
            ))}
            <TextField
              size="small"
              fullWidth
              label="Why"
              placeholder="somebody works there until five"
              value={reason}
              onChange={(e) => setReason(e.target.value)}
              helperText="For good or for now: below, “Must stay on” takes it back."
            />
          </Stack>
        )}
      </Said>
      <Block title={off.length + on.length > 1 ? "Why these" : "Why this one"}>
        <Typography variant="body2">{why}</Typography>
      </Block>
    </>
  );
}

interface SwitchOffProps {
  home: HomeOverview;
  view: TraceView;
  looks: Looks;
  blade: BreakerView;
  why: string;
}

/** One handle goes off, the rest stay on. */
export function SwitchOff({ home, view, looks, blade, why }: SwitchOffProps) {
  const [cannot, setCannot] = useState(false);
  const [reason, setReason] = useState("");
  const others = view.to_switch
    .filter((id) => id !== blade.breaker)
    .map((id) => bladeOf(home, id))
    .filter((b) => b !== undefined);
  return (
    <>
      <Said over="At the panel" title="Turn OFF, leave the rest ON" loud>
        <BigBlade blade={blade} />
        <Typography variant="body2" sx={{ my: 1 }}>
          Tell everybody in the house first. Check that no medical device, pump or server depends on it.
        </Typography>
        <Stack direction="row" spacing={1.5}>
          <Button variant="contained" size="large" onClick={() => looks.switchBreaker([blade.breaker], "off")}>
            Done, it is off
          </Button>
          <Button variant="outlined" size="large" aria-expanded={cannot} onClick={() => setCannot(!cannot)}>
            Can’t
          </Button>
        </Stack>
        {cannot && (
          <Stack spacing={1.5} sx={{ mt: 2 }}>
            <Typography variant="h3">It must stay on</Typography>
            <TextField size="small" label="Why" value={reason} onChange={(e) => setReason(e.target.value)} />
            <Button
              variant="outlined"
              onClick={() =>
                looks.record([
                  { kind: "breaker_kept", breaker: blade.breaker, kept: "on", reason: reason || "as said" },
                ])
              }
            >
              Keep {blade.tag} on for good
            </Button>
            <Typography variant="h3">Or switch another one off now</Typography>
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
              {others.map((b) => (
                <Button
                  key={b.breaker}
                  variant="outlined"
                  aria-label={`${b.tag} is off`}
                  onClick={() => looks.switchBreaker([b.breaker], "off")}
                >
                  {b.tag} is off
                </Button>
              ))}
            </Stack>
          </Stack>
        )}
      </Said>
      <Block title="Why this one">
        <Typography variant="body2">{why}</Typography>
      </Block>
    </>
  );
}
