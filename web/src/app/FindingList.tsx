import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { Finding } from "../api/client";
import { useAct } from "./useAct";
import { tone } from "./theme";
import { SEVERITY } from "../parts/severity";

interface Props {
  home: string;
  findings: Finding[];
  /** Goes to where it is. */
  onSelect?: ((finding: Finding) => void) | undefined;
  /** They stand under a heading that says how grave they are. */
  grouped?: boolean;
}

/** Findings with why, what to do and the source; each can be mended in the record or set aside with a reason. */
export function FindingList({ home, findings, onSelect, grouped = false }: Props) {
  return (
    <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", display: "grid", gap: 2 }} data-testid="findings">
      {findings.map((finding) => (
        <FindingItem key={finding.key} home={home} finding={finding} onSelect={onSelect} grouped={grouped} />
      ))}
    </Box>
  );
}

interface ItemProps extends Pick<Props, "home" | "onSelect"> {
  finding: Finding;
  grouped: boolean;
}

function FindingItem({ home, finding, onSelect, grouped }: ItemProps) {
  const act = useAct(home);
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const { severity, mend } = finding;
  const grave = severity === "danger";
  const aside = (is: boolean) =>
    act(
      [{ kind: "finding_set_aside", finding: finding.key, message: finding.message, reason, aside: is }],
      is ? "Set aside. It comes back when what it says changes." : "It counts again.",
    ).then((done) => {
      if (done) setAsking(false);
    });
  return (
    <Box
      component="li"
      data-finding={finding.code}
      sx={{
        borderLeft: `5px solid ${grave ? tone("danger") : severity === "fault" ? tone("ochre") : tone("rule")}`,
        pl: 1.5,
      }}
    >
      <Typography variant="body2">
        <Box component="strong" sx={{ color: grave ? tone("danger") : "inherit" }}>
          {grouped ? "" : `${SEVERITY[severity]} · `}
          {onSelect && Object.values(finding.place).some((place) => place != null) ? (
            <Box
              component="button"
              type="button"
              aria-label={finding.about}
              onClick={() => onSelect(finding)}
              sx={{
                font: "inherit",
                color: "inherit",
                minHeight: 44,
                minWidth: 44,
                textAlign: "left",
                background: "none",
                border: 0,
                p: 0,
                textDecoration: "underline",
                cursor: "pointer",
              }}
            >
              {finding.about}:
            </Box>
          ) : (
            `${finding.about}:`
          )}
        </Box>{" "}
        {finding.message}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {finding.why} {finding.remedy}
      </Typography>
      <Typography variant="caption" color="text.secondary" component="p">
        {finding.source}
      </Typography>
      {finding.aside != null && <Typography variant="body2">Set aside: {finding.aside}</Typography>}
      {asking ? (
        <Stack spacing={1} sx={{ mt: 1 }}>
          <TextField
            label="Why is it set aside?"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            helperText="stays in the logbook with your name"
            autoFocus
          />
          <Stack direction="row" spacing={1}>
            <Button variant="contained" disabled={reason.trim().length < 3} onClick={() => void aside(true)}>
              Set it aside
            </Button>
            <Button color="inherit" onClick={() => setAsking(false)}>
              Back
            </Button>
          </Stack>
        </Stack>
      ) : (
        <Stack direction="row" useFlexGap spacing={1} sx={{ mt: 0.5, flexWrap: "wrap" }} className="no-print">
          {mend && finding.aside == null && (
            <Button size="small" variant="outlined" onClick={() => void act(mend.facts, `Recorded: ${mend.words}.`)}>
              Done: {mend.words}
            </Button>
          )}
          {finding.wish != null && finding.aside == null && (
            <Button
              size="small"
              variant="outlined"
              component={Link}
              to={`/h/${home}/work?${new URLSearchParams({ wish: finding.wish.wish, panel: finding.wish.panel }).toString()}`}
            >
              Find ways: {finding.wish.wish}
            </Button>
          )}
          <Button
            size="small"
            color="inherit"
            onClick={() => (finding.aside == null ? setAsking(true) : void aside(false))}
          >
            {finding.aside == null ? "Set aside" : "Show it again"}
          </Button>
        </Stack>
      )}
    </Box>
  );
}
