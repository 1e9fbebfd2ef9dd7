import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useState, type ReactNode } from "react";
import type { HomeOverview, Panel, PanelDetails } from "../../api/client";
import { LISTS } from "../../api/lists";
import { newId, useRecord } from "../../api/record";
import { wordsOf } from "../../app/useNotice";
import { bladesOf } from "../../drawing/place";
import { Choice } from "../../parts/Choice";
import { fromYesNo, numberOrNull, YES_NO, yesNo, type YesNo } from "../../parts/yesNo";
import { BONDS, DISCONNECTS, NUMBERINGS, TANDEMS } from "./panelChoices";
import { wireName, wireOf, WIRES } from "./wires";

interface Props {
  home: HomeOverview;
  /** The panel to describe anew; none: another one. */
  before: Panel | undefined;
  open: boolean;
  onClose: () => void;
  onKept?: (panel: string) => void;
}

export function PanelDialog(props: Props) {
  const full = useMediaQuery(useTheme().breakpoints.down("md"));
  const title = props.before || props.home.panels.length === 0 ? "Describe the panel" : "Another panel";
  return (
    <Dialog
      open={props.open}
      onClose={props.onClose}
      fullWidth
      maxWidth="md"
      fullScreen={full}
      aria-labelledby="panel-title"
    >
      <DialogTitle id="panel-title">{title}</DialogTitle>
      <PanelForm {...props} />
    </Dialog>
  );
}

const list = (text: string) => text.split(/[\s,;]+/).filter((word) => word !== "");
const numbers = (text: string) => list(text).map(Number);

function PanelForm({ home, before, onClose, onKept }: Props) {
  const record = useRecord(home.id);
  const first = home.panels.length === 0 || before?.id === home.panels[0]?.panel.id;
  const old: PanelDetails = before?.details ?? { ...LISTS.unreadPanel, types: [] };
  const engraved = typeof before?.numbering === "object" ? before.numbering.as_engraved : null;
  const [name, setName] = useState(before?.name ?? (first ? "Main panel" : ""));
  const [place, setPlace] = useState(before?.place ?? "");
  const [spaces, setSpaces] = useState(String(before?.spaces ?? (first ? 24 : 8)));
  const [numbering, setNumbering] = useState<(typeof NUMBERINGS)[number][0]>(
    engraved
      ? "engraved"
      : before?.columns === "one"
        ? "one"
        : before?.numbering === "straight_down"
          ? "straight_down"
          : "odd_even",
  );
  const [left, setLeft] = useState(engraved?.left.join(" ") ?? "");
  const [right, setRight] = useState(engraved?.right.join(" ") ?? "");
  const [service, setService] = useState<Panel["service"]>(
    before?.service ?? home.panels[0]?.panel.service ?? "split_phase",
  );
  const [main, setMain] = useState(before?.main == null ? "" : String(before.main));
  const [width, setWidth] = useState(String(before?.card.width_mm ?? 130));
  const [height, setHeight] = useState(String(before?.card.height_mm ?? 210));
  const [details, setDetails] = useState<PanelDetails>(old);
  const [types, setTypes] = useState(old.types.join(", "));
  const [tandemSpaces, setTandemSpaces] = useState(typeof old.tandems === "object" ? old.tandems.in.join(" ") : "");
  const [error, setError] = useState<unknown>(null);
  const change = (changed: Partial<PanelDetails>) => setDetails((now) => ({ ...now, ...changed }));
  const tandems: (typeof TANDEMS)[number][0] = typeof details.tandems === "object" ? "in" : details.tandems;
  const mine = new Set(
    home.panels.filter((post) => post.panel.id === before?.id).flatMap((p) => p.breakers.map((b) => b.breaker)),
  );
  const feeders = bladesOf(home).filter((blade) => !mine.has(blade.breaker));

  const keep = async () => {
    const columns = { left: numbers(left), right: numbers(right) };
    const count =
      numbering === "engraved" ? [...columns.left, ...columns.right].filter((n) => n > 0).length : Number(spaces);
    const wrong = [...columns.left, ...columns.right].some((n) => !Number.isInteger(n) || n < 0 || n > 255);
    if (!Number.isInteger(count) || count < 0 || count > 255 || (numbering === "engraved" && wrong)) {
      setError(new Error("The number of spaces is a whole number from 2 to 84. Nothing was recorded."));
      return;
    }
    const panel = before?.id ?? newId();
    try {
      await record([
        {
          kind: "panel_described",
          panel,
          name,
          place,
          spaces: count,
          columns: numbering === "one" || (numbering === "engraved" && columns.right.length === 0) ? "one" : "two",
          numbering:
            numbering === "engraved"
              ? { as_engraved: columns }
              : numbering === "odd_even"
                ? "odd_even"
                : "straight_down",
          service,
          main: numberOrNull(main),
          card: { width_mm: Number(width), height_mm: Number(height) },
          details: {
            ...details,
            types: types
              .split(",")
              .map((word) => word.trim())
              .filter((word) => word !== ""),
            tandems: tandems === "in" ? { in: numbers(tandemSpaces) } : tandems,
          },
        },
      ]);
      onClose();
      onKept?.(panel);
    } catch (refused) {
      setError(refused);
    }
  };
  const number = { htmlInput: { inputMode: "decimal" as const } };
  const countField = (
    label: string,
    key: "bus" | "interrupting_ka" | "circuits" | "neutrals_doubled" | "year",
    help = "",
  ) => (
    <TextField
      label={label}
      value={details[key] ?? ""}
      onChange={(e) => change({ [key]: numberOrNull(e.target.value.replace(/[^0-9]/g, "")) })}
      slotProps={number}
      helperText={help}
    />
  );
  return (
    <>
      <DialogContent sx={{ pt: "8px !important" }}>
        <Part>
          <TextField label="Name" value={name} onChange={(e) => setName(e.target.value)} />
          <TextField
            label="Where it hangs"
            value={place}
            onChange={(e) => setPlace(e.target.value)}
            placeholder="back hall"
          />
          {numbering !== "engraved" && (
            <TextField
              label="Spaces"
              value={spaces}
              onChange={(e) => setSpaces(e.target.value)}
              slotProps={number}
              helperText="2 to 84"
            />
          )}
          <TextField
            label="Main, amps"
            value={main}
            onChange={(e) => setMain(e.target.value)}
            slotProps={number}
            helperText="if it was read"
          />
          <Choice label="Numbers on the metal" value={numbering} options={NUMBERINGS} onChange={setNumbering} wide />
          {numbering === "engraved" && (
            <>
              <TextField
                label="Left column from the top"
                value={left}
                onChange={(e) => setLeft(e.target.value)}
                multiline
                helperText="0 where the metal has no space"
              />
              <TextField
                label="Right column from the top"
                value={right}
                onChange={(e) => setRight(e.target.value)}
                multiline
                helperText="empty where there is one column"
              />
            </>
          )}
          <Choice
            label="What comes in"
            value={service}
            options={LISTS.services}
            onChange={setService}
            help="Legs are worked out from the rows, and overridden only by a reading."
            wide
          />
          <Choice
            label="What sits in it"
            value={details.interior}
            options={LISTS.interiors}
            onChange={(interior) => change({ interior })}
            wide
          />
        </Part>
        <Part title="What feeds it">
          <Choice
            label="Fed from"
            value={details.fed_by ?? ""}
            options={[
              ["", "the service"],
              ...feeders.map((b) => [b.breaker, `${b.tag} ${b.wording || b.claim || ""}`] as const),
            ]}
            onChange={(breaker) => change({ fed_by: breaker === "" ? null : breaker })}
          />
          <TextField
            label="Letters before its numbers"
            value={details.tag ?? before?.tag ?? ""}
            onChange={(e) => change({ tag: e.target.value === "" ? null : e.target.value.toUpperCase() })}
            helperText="G for G3; worked out if empty"
          />
          <Choice
            label="Main breaker is"
            value={details.main_at}
            options={LISTS.mains}
            onChange={(main_at) => change({ main_at })}
          />
          <Choice
            label="Service or feeder conductors"
            value={wireName(details.conductors)}
            options={WIRES}
            onChange={(wire) => change({ conductors: wireOf(wire, details.conductors) })}
          />
          <Box sx={{ gridColumn: "1 / -1" }}>
            <Typography variant="body2">What else can feed it? Each stays live when the main is off.</Typography>
            {LISTS.sources.map(([source, words]) => (
              <FormControlLabel
                key={source}
                label={words}
                control={
                  <Checkbox
                    checked={details.sources?.includes(source) ?? false}
                    onChange={(e) => {
                      const rest = (details.sources ?? []).filter((other) => other !== source);
                      change({ sources: e.target.checked ? [...rest, source] : rest });
                    }}
                  />
                }
              />
            ))}
            <FormControlLabel
              label="Nothing else, I have asked"
              control={
                <Checkbox
                  checked={details.sources?.length === 0}
                  onChange={(e) => change({ sources: e.target.checked ? [] : null })}
                />
              }
            />
          </Box>
        </Part>
        <Part title="Neutral and ground">
          <Choice
            label="The service disconnect is"
            value={details.service_disconnect ?? ""}
            options={DISCONNECTS}
            onChange={(at) => change({ service_disconnect: at === "" ? null : at })}
            help="Ask; do not infer it from “main”."
          />
          <Choice
            label="Neutral and ground here are"
            value={details.bond ?? ""}
            options={BONDS}
            onChange={(bond) => change({ bond: bond === "" ? null : bond })}
            help="Only as an electrician read it: do not open the panel for this."
          />
          <Choice
            label="Grounds have a bar of their own"
            value={yesNo(details.ground_bar)}
            options={YES_NO}
            onChange={(bar: YesNo) => change({ ground_bar: fromYesNo(bar) })}
          />
          {countField("Terminals with two neutrals", "neutrals_doubled", "as seen; 0 if none")}
          <FormControlLabel
            sx={{ gridColumn: "1 / -1" }}
            label="Old feeder of three wires to another building"
            control={
              <Checkbox
                checked={details.three_wire_feeder}
                onChange={(e) => change({ three_wire_feeder: e.target.checked })}
              />
            }
          />
        </Part>
        <Part title="On the label">
          <TextField label="Maker" value={details.make} onChange={(e) => change({ make: e.target.value })} />
          <TextField label="Series" value={details.series} onChange={(e) => change({ series: e.target.value })} />
          <TextField
            label="Breaker types it names"
            value={types}
            onChange={(e) => setTypes(e.target.value)}
            helperText="with commas between"
          />
          {countField("Interrupting rating, kA", "interrupting_ka")}
          {countField("Bus, amps", "bus")}
          {countField("Listed for circuits", "circuits")}
          <Choice
            label="Tandems go"
            value={tandems}
            options={TANDEMS}
            onChange={(where) => change({ tandems: where === "in" ? { in: [] } : where })}
          />
          {tandems === "in" && (
            <TextField label="Tandem spaces" value={tandemSpaces} onChange={(e) => setTandemSpaces(e.target.value)} />
          )}
          <Choice
            label="Notched where tandems fit"
            value={yesNo(details.notched)}
            options={YES_NO}
            onChange={(notched: YesNo) => change({ notched: fromYesNo(notched) })}
          />
          <Choice
            label="Rail for plug-on neutrals"
            value={yesNo(details.plug_on_neutral)}
            options={YES_NO}
            onChange={(rail: YesNo) => change({ plug_on_neutral: fromYesNo(rail) })}
          />
          {countField("Year of make", "year")}
        </Part>
        <Part title="The door card">
          <TextField
            label="Door card width, mm"
            value={width}
            onChange={(e) => setWidth(e.target.value)}
            slotProps={number}
          />
          <TextField
            label="Door card height, mm"
            value={height}
            onChange={(e) => setHeight(e.target.value)}
            slotProps={number}
          />
        </Part>
        {error !== null && (
          <Alert severity="error" variant="outlined">
            {wordsOf(error)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave as it was
        </Button>
        <Button variant="contained" onClick={() => void keep()}>
          Keep this panel
        </Button>
      </DialogActions>
    </>
  );
}

function Part({ title, children }: { title?: string; children: ReactNode }) {
  return (
    <Box component="section" sx={{ mb: 3 }}>
      {title !== undefined && (
        <Typography variant="h3" sx={{ mb: 1.5 }}>
          {title}
        </Typography>
      )}
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr" } }}>
        {children}
      </Box>
    </Box>
  );
}
