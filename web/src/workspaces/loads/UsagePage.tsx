import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useTheme } from "@mui/material/styles";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useState } from "react";
import { Link } from "react-router";
import type { DemandSaid, DemandView, UsagePreview } from "../../api/client";
import { readUsage, useUsage, type UsageChoices } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { wordsOf } from "../../app/useNotice";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { DemandDay } from "../../drawing/DemandDay";
import { DemandYear } from "../../drawing/DemandYear";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { FileButton } from "../../parts/form/FileButton";
import { Loaded } from "../../parts/Loaded";

const UNITS = [
  ["kwh", "kWh of the interval"],
  ["wh", "Wh of the interval"],
  ["kw", "kW, its mean"],
  ["w", "W, its mean"],
] as const;
type Unit = (typeof UNITS)[number][0];

/** A file that is read and not yet recorded. */
interface Read {
  file: File;
  choices: UsageChoices;
  preview: UsagePreview | null;
  error: string | null;
}

/** The utility's interval data: a file is read, looked at, recorded; the demand of a year. */
export function UsagePage() {
  const home = useThisHome();
  const view = useUsage(home.id);
  const act = useAct(home.id);
  const [read, setRead] = useState<Read | null>(null);
  const look = async (file: File, choices: UsageChoices) => {
    try {
      setRead({ file, choices, preview: await readUsage(home.id, file, choices), error: null });
    } catch (error) {
      // What was read before stays, so that another choice can be made.
      setRead((before) => ({
        file,
        choices,
        preview: before?.file === file ? before.preview : null,
        error: wordsOf(error),
      }));
    }
  };
  const record = () => {
    if (read?.preview == null) return;
    void act([read.preview.fact], "The usage data are recorded.");
    setRead(null);
  };
  return (
    <>
      <Button component={Link} to={`/h/${home.id}/loads`} color="inherit" sx={{ mb: 1 }}>
        All circuits
      </Button>
      <Loaded query={view} what="usage">
        {({ said, file }: DemandView) => (
          <>
            <Typography variant="h1" data-testid="usage-title">
              {said?.title ?? "A year by the utility's meter"}
            </Typography>
            {said == null && (
              <Typography sx={{ maxWidth: 640, mt: 1 }}>
                Most utilities let you export what the meter read every 15 minutes or every hour, as CSV or as usage
                XML. A year of it gives the highest demand, from which a new load can be judged without a clamp.
              </Typography>
            )}
            <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap", alignItems: "center" }}>
              <FileButton
                words={said == null ? "Read a file" : "Read another file"}
                label="A file of usage"
                accept=".csv,.txt,.xml,text/csv,text/xml,application/xml"
                onFile={(chosen) => void look(chosen, {})}
              />
              {said != null && (
                <Button
                  variant="outlined"
                  color="inherit"
                  component={Link}
                  to={`/h/${home.id}/loads/service?method=measured`}
                >
                  May a load be added?
                </Button>
              )}
              {file !== "" && <Typography color="text.secondary">from {file}</Typography>}
            </Stack>
            {read?.error != null && (
              <Alert severity="warning" variant="outlined" sx={{ mb: 2 }} data-testid="usage-error">
                {read.error}
              </Alert>
            )}
            {read?.preview != null && (
              <Preview
                read={read}
                preview={read.preview}
                onChoices={(choices) => void look(read.file, choices)}
                onRecord={record}
                onLeave={() => setRead(null)}
              />
            )}
            {said != null && read === null && <Said said={said} />}
          </>
        )}
      </Loaded>
    </>
  );
}

function Said({ said }: { said: DemandSaid }) {
  const narrow = useMediaQuery(useTheme().breakpoints.down("sm"));
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 320px" } }}>
      <Stack spacing={3}>
        <Box>
          <Typography variant="h2">The highest of each day</Typography>
          <DemandYear said={said} narrow={narrow} />
        </Box>
        <Box>
          <Typography variant="h2">The mean day</Typography>
          <DemandDay hours={said.demand.hours} narrow={narrow} />
        </Box>
      </Stack>
      <Stack spacing={2}>
        <Lines title="What it says" lines={said.said} />
        <Lines title="What it does not show" lines={said.caveats} />
      </Stack>
    </Box>
  );
}

function Lines({ title, lines }: { title: string; lines: readonly string[] }) {
  return (
    <Block title={title}>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Block>
  );
}

interface PreviewProps {
  read: Read;
  preview: UsagePreview;
  onChoices: (choices: UsageChoices) => void;
  onRecord: () => void;
  onLeave: () => void;
}

function Preview({ read, preview, onChoices, onRecord, onLeave }: PreviewProps) {
  const { columns, said } = preview;
  const named = (at: number) => {
    const column = columns?.all[at];
    return column === undefined
      ? ""
      : `${column.name === "" ? `Column ${at + 1}` : column.name} (${column.first.join(", ")})`;
  };
  return (
    <Stack spacing={2} data-testid="usage-preview">
      <Block title={`${read.file.name}, not recorded yet`}>
        <Typography sx={{ fontWeight: 700 }}>{said.title}.</Typography>
        {columns != null && (
          <Box
            sx={{ display: "grid", gap: 2, my: 2, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "2fr 1fr 1fr" } }}
          >
            <Choice
              label="The figures are in"
              value={String(columns.value)}
              options={columns.all.filter((one) => one.figures).map((one) => [String(one.at), named(one.at)] as const)}
              onChange={(value) => onChoices({ ...read.choices, value: Number(value) })}
            />
            <Choice
              label="Their unit"
              value={columns.unit as Unit}
              options={UNITS}
              help={columns.unit_is_said ? "as the file says" : "a guess: the file does not say"}
              onChange={(unit) => onChoices({ ...read.choices, unit })}
            />
            {columns.meters.length > 0 && (
              <Choice
                label="The meter"
                value={columns.meter ?? ""}
                options={[["", "all of them"] as const, ...columns.meters.map((meter) => [meter, meter] as const)]}
                onChange={(meter) => onChoices({ ...read.choices, meter })}
              />
            )}
          </Box>
        )}
        <Typography variant="body2" color="text.secondary">
          {columns == null
            ? "Usage XML, on the clock that it names."
            : `The column of the time: ${columns.time.map(named).join(" and ")}.`}
        </Typography>
        <Box
          component="table"
          aria-label="The first readings"
          sx={{
            my: 1.5,
            borderCollapse: "collapse",
            "& td, & th": { pr: 3, py: 0.4, borderTop: `1px solid ${tone("rule")}` },
          }}
        >
          <thead>
            <tr>
              <Box component="th" sx={{ textAlign: "left", fontWeight: 400 }}>
                from
              </Box>
              <Box component="th" sx={{ textAlign: "right", fontWeight: 400 }}>
                minutes
              </Box>
              <Box component="th" sx={{ textAlign: "right", fontWeight: 400 }}>
                kW
              </Box>
            </tr>
          </thead>
          <tbody>
            {preview.first.map((row, at) => (
              <tr key={at}>
                <td>{row.at}</td>
                <Box component="td" sx={{ textAlign: "right" }}>
                  {row.minutes}
                </Box>
                <Box component="td" sx={{ textAlign: "right" }}>
                  {row.kw.toFixed(2)}
                </Box>
              </tr>
            ))}
          </tbody>
        </Box>
        {preview.remarks.map((remark) => (
          <Typography key={remark} variant="body2">
            {remark}
          </Typography>
        ))}
        <Stack direction="row" spacing={1.5} sx={{ mt: 2 }}>
          <Button variant="contained" onClick={onRecord}>
            Record it
          </Button>
          <Button color="inherit" onClick={onLeave}>
            Leave it
          </Button>
        </Stack>
      </Block>
      <Said said={said} />
    </Stack>
  );
}
