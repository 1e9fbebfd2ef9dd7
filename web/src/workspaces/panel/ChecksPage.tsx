import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Finding } from "../../api/client";
import { today } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { LISTS } from "../../api/generated/lists";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { FindingList } from "../../app/FindingList";
import { SEVERITY } from "../../parts/severity";

/** Everything worth a look in the home, with the rule behind each and what to do. */
export function ChecksPage() {
  const home = useThisHome();
  const navigate = useNavigate();
  const act = useAct(home.id);
  const open = home.findings.filter((finding) => finding.aside == null);
  const aside = home.findings.filter((finding) => finding.aside != null);
  const planned = open.filter((finding) => finding.severity === "planned");
  const [showsPlanned, setShowsPlanned] = useState(false);
  const go = ({ place }: Finding) => {
    const inHouse = place.room != null ? `r:${place.room}` : place.panel == null ? `p:${place.point}` : null;
    if (inHouse !== null) return void navigate(`/h/${home.id}/house?at=${encodeURIComponent(inHouse)}`);
    const at = place.breaker != null ? `b:${place.breaker}` : place.space != null ? `s:${place.space}` : "";
    void navigate(`/h/${home.id}/panel/${place.panel ?? ""}${at === "" ? "" : `?at=${encodeURIComponent(at)}`}`);
  };
  return (
    <Box sx={{ maxWidth: 900 }}>
      <Typography variant="h1">Worth a look</Typography>
      <Typography color="text.secondary">
        {open.length === planned.length
          ? "Nothing was found in what is recorded. That is no proof that all is well."
          : `${counted(open, "danger", "danger", "dangers")}, ${counted(open, "fault", "fault", "faults")}, ${counted(open, "note", "note", "notes")}.`}{" "}
        Worded as today&rsquo;s rule; what held when the work was done is not known here. Local codes and licensed
        practice come first.
      </Typography>
      {home.not_judged !== "" && <Typography sx={{ mt: 1 }}>{home.not_judged}</Typography>}
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap", alignItems: "center" }}>
        <Button
          variant="contained"
          href={`/api/homes/${home.id}/findings.pdf?sheet=letter&date=${today()}`}
          target="_blank"
          rel="noreferrer"
        >
          Report, Letter
        </Button>
        <Button
          variant="outlined"
          href={`/api/homes/${home.id}/findings.pdf?sheet=a4&date=${today()}`}
          target="_blank"
          rel="noreferrer"
        >
          Report, A4
        </Button>
        <Button variant="outlined" component={Link} to={`/h/${home.id}/panel`}>
          To the panel
        </Button>
        <Box sx={{ minWidth: 250 }}>
          <Choice
            label="Rules of"
            value={home.edition}
            options={LISTS.editions}
            onChange={(edition) =>
              void act([{ kind: "rules_chosen", edition }], "Findings are worded by that edition now.")
            }
          />
        </Box>
      </Stack>
      <Stack spacing={2}>
        {(["danger", "fault", "note"] as const).map((severity) => {
          const here = open.filter((finding) => finding.severity === severity);
          return (
            here.length > 0 && (
              <Block key={severity} title={SEVERITY[severity]}>
                <FindingList home={home.id} findings={here} onSelect={go} grouped />
              </Block>
            )
          );
        })}
        {planned.length > 0 && (
          <Block title={SEVERITY.planned}>
            <Typography variant="body2" color="text.secondary">
              Nothing is wrong by these: old work may stay as it is. They tell what to ask for where something is
              replaced or added.
            </Typography>
            <Button
              variant="outlined"
              aria-expanded={showsPlanned}
              onClick={() => setShowsPlanned(!showsPlanned)}
              sx={{ my: 1 }}
            >
              {showsPlanned ? "Hide them" : `Show them (${planned.length})`}
            </Button>
            {showsPlanned && <FindingList home={home.id} findings={planned} onSelect={go} grouped />}
          </Block>
        )}
        {aside.length > 0 && (
          <Block title="Looked at and set aside">
            <FindingList home={home.id} findings={aside} onSelect={go} />
          </Block>
        )}
      </Stack>
    </Box>
  );
}

function counted(findings: Finding[], severity: Finding["severity"], one: string, several: string): string {
  const count = findings.filter((finding) => finding.severity === severity).length;
  return `${count} ${count === 1 ? one : several}`;
}
