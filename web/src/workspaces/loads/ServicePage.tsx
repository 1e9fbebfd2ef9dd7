import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { NewLoadKind, ServiceLine, ServiceMethod, ServiceView } from "../../api/client";
import { today, useService } from "../../api/queries";
import { useRecord } from "../../api/record";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";
import { Loaded } from "../../parts/Loaded";
import { amps } from "../../parts/words";
import { numberOrNull } from "../../parts/yesNo";

const KINDS: readonly (readonly [NewLoadKind, string])[] = [
  ["fixed", "an appliance fastened in place"],
  ["vehicle", "a vehicle charger"],
  ["cooking", "a range, an oven or a top"],
  ["dryer", "a dryer"],
  ["heat", "electric heat of a room"],
  ["cooler", "a cooler"],
];

/** The service calculation, line by line, today and with a new load side by side. */
export function ServicePage() {
  const home = useThisHome();
  const [asked] = useSearchParams();
  const [method, setMethod] = useState<ServiceMethod | "">(asked.get("method") === "measured" ? "measured" : "");
  const [kind, setKind] = useState<NewLoadKind>("fixed");
  const [va, setVa] = useState("");
  const [tells, setTells] = useState(false);
  const [corrected, setCorrected] = useState<ServiceLine | null>(null);
  const printed = (sheet: string) =>
    new URLSearchParams({
      sheet,
      date: today(),
      ...(method !== "" && { method }),
      ...(va !== "" && { new_va: va, new_kind: kind }),
    }).toString();
  const view = useService(home.id, { method, kind, va: numberOrNull(va) });
  return (
    <>
      <Button component={Link} to={`/h/${home.id}/loads`} color="inherit" sx={{ mb: 1 }}>
        All circuits
      </Button>
      <Loaded query={view} what="sheet">
        {(sheet: ServiceView) => (
          <>
            <Typography variant="h1" data-testid="service-title">
              {sheet.title}
            </Typography>
            <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap", alignItems: "center" }}>
              <Box sx={{ minWidth: 190, display: "grid" }}>
                <Choice
                  label="Method"
                  value={sheet.method}
                  options={sheet.methods.map((one) => [one.method, one.words] as const)}
                  onChange={setMethod}
                />
              </Box>
              <Box sx={{ minWidth: 240, display: "grid" }}>
                <Choice label="A new load" value={kind} options={KINDS} onChange={setKind} />
              </Box>
              <TextField
                label="Its plate, W or VA"
                value={va}
                onChange={(event) => setVa(event.target.value.replace(/[^0-9]/g, ""))}
                autoComplete="off"
                slotProps={{ htmlInput: { inputMode: "numeric" } }}
                sx={{ width: 170 }}
              />
              <Button variant="outlined" color="inherit" onClick={() => setTells(true)}>
                Meter base, seasons
              </Button>
              {(["letter", "a4"] as const).map((paper) => (
                <Button
                  key={paper}
                  variant="outlined"
                  color="inherit"
                  href={`/api/homes/${home.id}/service.pdf?${printed(paper)}`}
                  target="_blank"
                  rel="noreferrer"
                >
                  Print, {paper === "letter" ? "Letter" : "A4"}
                </Button>
              ))}
            </Stack>
            {!sheet.applies && (
              <Alert severity="warning" variant="outlined" sx={{ mb: 2 }}>
                {sheet.not_for}
              </Alert>
            )}
            <Box
              sx={{
                display: "grid",
                gap: 4,
                gridTemplateColumns: { xs: "minmax(0, 1fr)", lg: "minmax(0, 1fr) 300px" },
              }}
            >
              <Sheet sheet={sheet} onCorrect={setCorrected} />
              <Stack spacing={2}>
                <Limits sheet={sheet} />
                <NeutralAndLegs sheet={sheet} />
                {sheet.solar != null && (
                  <Block title="What comes in beside the main" loud={!sheet.solar.is_allowed}>
                    <Typography data-testid="solar">{sheet.solar.words}</Typography>
                    <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
                      {sheet.solar.source}
                    </Typography>
                  </Block>
                )}
                {sheet.unread.length > 0 && (
                  <Block title="Still to be read">
                    <Typography variant="body2">Without these nothing is said about what is left.</Typography>
                    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                      {sheet.unread.map((unread) => (
                        <li key={unread}>{unread}</li>
                      ))}
                    </Box>
                  </Block>
                )}
              </Stack>
            </Box>
            {corrected !== null && <CorrectLine home={home.id} line={corrected} onClose={() => setCorrected(null)} />}
            {tells && <TellService home={home.id} sheet={sheet} onClose={() => setTells(false)} />}
          </>
        )}
      </Loaded>
    </>
  );
}

/** What the neutral carries, and each leg by its circuits, where these are known. */
function NeutralAndLegs({ sheet }: { sheet: ServiceView }) {
  if (sheet.neutral_amps == null && sheet.legs.length === 0) return null;
  return (
    <Block title="Neutral and legs">
      {sheet.neutral_amps != null && (
        <Typography data-testid="neutral">
          The neutral: <b>{sheet.neutral_amps} A</b>, by the standard method.
        </Typography>
      )}
      {sheet.legs.map((leg) => (
        <Typography key={leg.leg}>
          Leg {leg.leg}: <b>{amps(leg.expected)} A</b> expected by its circuits, {amps(leg.connected)} A with everything
          on.
        </Typography>
      ))}
      {sheet.legs.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          Of the loads that are proven on circuits alone.
        </Typography>
      )}
    </Block>
  );
}

const va = (value: number): string => value.toLocaleString("en-US", { maximumFractionDigits: 1 }).replace(/,/g, " ");

interface SheetProps {
  sheet: ServiceView;
  onCorrect: (line: ServiceLine) => void;
}

function Sheet({ sheet, onCorrect }: SheetProps) {
  const both = sheet.with_new_amps != null;
  const right = { textAlign: "right", whiteSpace: "nowrap", px: 1 } as const;
  return (
    <Box sx={{ overflowX: "auto" }}>
      <Box
        component="table"
        data-testid="sheet"
        sx={{
          borderCollapse: "collapse",
          width: "100%",
          "& td, & th": { py: 0.7, borderTop: `1px solid ${tone("rule")}`, verticalAlign: "top" },
        }}
      >
        <thead>
          <tr>
            <Box component="th" colSpan={2} sx={{ textAlign: "left", fontWeight: 400, color: "text.secondary" }}>
              {sheet.source}
            </Box>
            <Box component="th" sx={right}>
              today, VA
            </Box>
            {both && (
              <Box component="th" sx={right}>
                with it
              </Box>
            )}
            <td />
          </tr>
        </thead>
        <tbody>
          {sheet.lines.map((line, n) => (
            <Box component="tr" key={line.words + line.rule} sx={{ fontWeight: line.is_sum ? 700 : 400 }}>
              <Box component="td" sx={{ color: "text.secondary", width: 28, fontWeight: 400 }}>
                {n + 1}
              </Box>
              <Box component="td" sx={{ width: "100%" }}>
                {line.words}
                {(line.from !== "" || line.rule !== "") && (
                  <Box sx={{ fontSize: "0.85rem", color: "text.secondary", fontWeight: 400 }}>
                    {[line.from, line.rule].filter((part) => part !== "").join("; ")}
                  </Box>
                )}
              </Box>
              <Box component="td" sx={right}>
                {va(line.today)}
              </Box>
              {both && (
                <Box component="td" sx={right}>
                  {line.with_new == null ? "–" : va(line.with_new)}
                </Box>
              )}
              <Box component="td" sx={{ width: 1, textAlign: "right" }}>
                {line.figure != null && (
                  <Button
                    size="small"
                    color="inherit"
                    aria-label={`Correct ${line.words}`}
                    onClick={() => onCorrect(line)}
                    sx={{ my: -1.2, minHeight: 44, fontWeight: line.told == null ? 400 : 700 }}
                  >
                    {line.told == null ? "Correct" : "Corrected"}
                  </Button>
                )}
              </Box>
            </Box>
          ))}
          <Box
            component="tr"
            sx={{ fontWeight: 700, fontSize: "1.2rem", "& td": { borderTop: `3px double ${tone("ink")}` } }}
          >
            <td />
            <td>By {sheet.volts} V</td>
            <Box component="td" sx={right}>
              {sheet.today_amps} A
            </Box>
            {both && (
              <Box component="td" sx={right}>
                {sheet.with_new_amps} A
              </Box>
            )}
            <td />
          </Box>
        </tbody>
      </Box>
      {sheet.remarks.map((remark) => (
        <Typography key={remark} variant="body2" color="text.secondary" sx={{ mt: 1, maxWidth: 640 }}>
          {remark}
        </Typography>
      ))}
    </Box>
  );
}

function Limits({ sheet }: { sheet: ServiceView }) {
  const most = Math.max(...sheet.limits.map((limit) => limit.amps ?? 0), sheet.with_new_amps ?? 0, sheet.today_amps, 1);
  const width = (amps: number) => `${(100 * amps) / most}%`;
  return (
    <Block title="What is left is the least of these">
      <Box component="ul" data-testid="limits" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {sheet.limits.map((limit) => (
          <Box component="li" key={limit.words} sx={{ py: 1, borderTop: `1px solid ${tone("rule")}` }}>
            <Box sx={{ display: "flex", fontWeight: 700 }}>
              <Box sx={{ flex: 1 }}>
                {limit.words}
                {limit.is_least ? " (least)" : ""}
              </Box>
              {limit.amps == null ? "not read" : `${limit.amps} A`}
            </Box>
            {limit.amps != null && (
              <>
                <Box aria-hidden sx={{ position: "relative", height: 14, my: 0.5, bgcolor: tone("rail") }}>
                  {sheet.with_new_amps != null && (
                    <Box
                      sx={{
                        position: "absolute",
                        top: 0,
                        bottom: 0,
                        left: 0,
                        width: width(sheet.with_new_amps),
                        border: `2px dashed ${tone("pine")}`,
                      }}
                    />
                  )}
                  <Box
                    sx={{
                      position: "absolute",
                      top: 0,
                      bottom: 0,
                      left: 0,
                      width: width(sheet.today_amps),
                      bgcolor: tone("pine"),
                    }}
                  />
                  <Box
                    sx={{
                      position: "absolute",
                      top: -3,
                      bottom: -3,
                      left: width(limit.amps),
                      ml: "-3px",
                      borderLeft: `3px solid ${tone("ink")}`,
                    }}
                  />
                </Box>
                <Box sx={{ fontSize: "0.85rem", color: "text.secondary" }}>
                  leaves today {limit.left_today} A
                  {limit.left_with_new == null ? "" : `, with the new load ${limit.left_with_new} A`}
                </Box>
              </>
            )}
          </Box>
        ))}
      </Box>
    </Block>
  );
}

type Values = { meter: string; together: boolean };
const { Amount, Tick } = fieldsOf<Values>();
const text = (value: number | null | undefined): string => (value == null ? "" : String(value));

/** What no fact of plan, panel or loads says. */
function TellService({ home, sheet, onClose }: { home: string; sheet: ServiceView; onClose: () => void }) {
  const record = useRecord(home);
  const told = sheet.told;
  return (
    <FormDialog
      title="Meter base, seasons"
      keep={`service ${home}`}
      recorded={{ meter: text(told?.meter_amps), together: told?.heat_cool_together ?? false }}
      onSave={(values) =>
        record([
          {
            kind: "service_told",
            ...told,
            meter_amps: numberOrNull(values.meter),
            heat_cool_together: values.together,
          },
        ])
      }
      onClose={onClose}
    >
      <Amount name="meter" label="The meter base, by its label" unit="A" whole />
      <Tick name="together" label="Heating and cooling can run at one time" />
    </FormDialog>
  );
}

type LineValues = { value: string; reason: string };
const lineFields = fieldsOf<LineValues>();

/** A figure in place of what the facts say, with its reason. */
function CorrectLine({ home, line, onClose }: { home: string; line: ServiceLine; onClose: () => void }) {
  const record = useRecord(home);
  const { figure } = line;
  if (figure == null) return null;
  const backToFacts = () => {
    void record([{ kind: "service_figure_told", figure }]);
    onClose();
  };
  return (
    <FormDialog
      title={`${line.words}: another figure`}
      keep={`service figure ${home} ${figure}`}
      recorded={{ value: text(line.told?.value), reason: line.told?.reason ?? "" }}
      onSave={({ value, reason }) => record([{ kind: "service_figure_told", figure, value: Number(value), reason }])}
      onClose={onClose}
    >
      <Typography variant="body2" color="text.secondary">
        {line.from === "" ? "Nothing is known of it by the facts." : `Now: ${line.from}.`}
      </Typography>
      <lineFields.Amount
        name="value"
        label={PLATES.has(figure) ? "The plates in all" : line.words}
        unit={line.unit}
        whole
        required
        autoFocus
      />
      <lineFields.Text name="reason" label="How it is known" placeholder="measured outside with a tape" required />
      {line.told != null && (
        <Button variant="outlined" color="inherit" onClick={backToFacts}>
          Back to what the facts say
        </Button>
      )}
    </FormDialog>
  );
}

/** Figures that are sums of plates. */
const PLATES = new Set<string>(["cooking", "dryers", "fixed", "heating_cooling", "vehicle"]);
