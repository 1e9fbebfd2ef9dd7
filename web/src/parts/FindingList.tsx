import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { Finding } from "../api/client";
import { tone } from "../app/theme";
import { Block } from "./Block";

const WORD = { danger: "Danger", fault: "Against today's rule", note: "Wording" } as const;

/** What is worth a look, the gravest first. */
export function FindingList({ findings, onSelect }: { findings: Finding[]; onSelect: (breaker: string) => void }) {
  const [all, setAll] = useState(false);
  if (findings.length === 0) return null;
  const grave = findings.filter((f) => f.severity !== "note");
  const shown = all ? findings : [...grave, ...findings.filter((f) => f.severity === "note").slice(0, 3)];
  return (
    <Block title="Worth a look">
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", display: "grid", gap: 1.25 }} data-testid="findings">
        {shown.map((finding) => (
          <Box component="li" key={`${finding.code} ${finding.about}`}>
            <Typography variant="body2">
              <Box component="strong" sx={{ color: finding.severity === "danger" ? tone("danger") : "inherit" }}>
                {WORD[finding.severity]} ·{" "}
                {finding.breaker ? (
                  <Box
                    component="button"
                    type="button"
                    onClick={() => onSelect(finding.breaker ?? "")}
                    sx={{
                      font: "inherit",
                      color: "inherit",
                      background: "none",
                      border: 0,
                      p: 0,
                      textDecoration: "underline",
                      cursor: "pointer",
                    }}
                  >
                    {finding.about}
                  </Box>
                ) : (
                  finding.about
                )}
              </Box>
              : {finding.message} {finding.severity !== "note" && finding.remedy}
            </Typography>
            {finding.severity !== "note" && (
              <Typography variant="caption" color="text.secondary">
                {finding.source}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {shown.length < findings.length && (
        <Button color="inherit" onClick={() => setAll(true)} sx={{ px: 0, mt: 1 }}>
          Show {findings.length - shown.length} more
        </Button>
      )}
    </Block>
  );
}
