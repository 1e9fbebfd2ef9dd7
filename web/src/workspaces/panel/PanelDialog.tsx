import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { useController } from "react-hook-form";
import type { Fact, HomeOverview, Panel, PanelDetails } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { newId, useRecord } from "../../api/record";
import { breakersOf } from "../../drawing/place";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { FormDialog } from "../../parts/form/FormDialog";
import { fromYesNo, numberOrNull, yesNo, type YesNo } from "../../parts/yesNo";
import { BONDS, DISCONNECTS, NUMBERINGS, TANDEMS } from "./panelChoices";
import { wireName, wireOf, WIRES } from "./wires";

/** A panel as its form shows it. */
type Values = {
  name: string;
  place: string;
  spaces: string;
  main: string;
  numbering: (typeof NUMBERINGS)[number][0];
  left: string;
  right: string;
  service: Panel["service"];
  interior: PanelDetails["interior"];
  fed_by: string;
  tag: string;
  main_at: PanelDetails["main_at"];
  conductors: string;
  terminals: (typeof LISTS.terminals)[number][0];
  cable: (typeof LISTS.cables)[number][0];
  sources: NonNullable<PanelDetails["sources"]> | null;
  service_disconnect: (typeof DISCONNECTS)[number][0];
  bond: (typeof BONDS)[number][0];
  ground_bar: YesNo;
  neutrals_doubled: string;
  three_wire_feeder: boolean;
  make: string;
  series: string;
  types: string;
  interrupting_ka: string;
  bus: string;
  circuits: string;
  splice_room: string;
  tandems: (typeof TANDEMS)[number][0];
  tandem_spaces: string;
  notched: YesNo;
  plug_on_neutral: YesNo;
  year: string;
  width: string;
  height: string;
};

const { Text, Amount, One, YesOrNo, Tick } = fieldsOf<Values>();

interface Props {
  home: HomeOverview;
  /** The panel to describe anew; none: another one. */
  before: Panel | undefined;
  open: boolean;
  onClose: () => void;
  onKept?: (panel: string) => void;
}

/** What is known of a panel, as it hangs. */
export function PanelDialog(props: Props) {
  return props.open ? <OpenPanelDialog {...props} /> : null;
}

const list = (text: string) => text.split(/[\s,;]+/).filter((word) => word !== "");
const numbers = (text: string) => list(text).map(Number);
const count = (number: number | null | undefined) => (number == null ? "" : String(number));

function OpenPanelDialog({ home, before, onClose, onKept }: Props) {
  const record = useRecord(home.id);
  const first = home.panels.length === 0 || before?.id === home.panels[0]?.panel.id;
  const recorded = valuesOf(before, first, home.panels[0]?.panel.service);
  const mine = new Set(
    home.panels.filter((view) => view.panel.id === before?.id).flatMap((p) => p.breakers.map((b) => b.breaker)),
  );
  const feeders = breakersOf(home).filter((breaker) => !mine.has(breaker.breaker));
  const save = async (values: Values) => {
    const panel = before?.id ?? newId();
    await record([factOf(panel, values, before)]);
    onKept?.(panel);
  };
  return (
    <FormDialog
      title={before || home.panels.length === 0 ? "Describe the panel" : "Another panel"}
      keep={`panel ${home.id} ${before?.id ?? "new"}`}
      recorded={recorded}
      size="md"
      onSave={save}
      onClose={onClose}
    >
      {(values) => (
        <>
          <Part>
            <Text name="name" label="Name" />
            <Text name="place" label="Where it hangs" placeholder="back hall" />
            {values.numbering !== "engraved" && <Amount name="spaces" label="Spaces" whole help="2 to 84" />}
            <Amount name="main" label="Main, amps" help="if it was read" />
            <One name="numbering" label="Numbers on the metal" options={NUMBERINGS} wide />
            {values.numbering === "engraved" && (
              <>
                <Text name="left" label="Left column from the top" multiline help="0 where the metal has no space" />
                <Text name="right" label="Right column from the top" multiline help="empty where there is one column" />
              </>
            )}
          </Part>
          <Folded title="What comes in" why="From it follow legs and volts, and which checks apply.">
            <One
              name="service"
              label="What comes in"
              options={LISTS.services}
              help="Legs are worked out from the rows, and overridden only by a reading."
              wide
            />
            <One name="interior" label="What is in it" options={LISTS.interiors} wide />
          </Folded>
          <Folded
            title="What feeds it"
            why="For a panel behind another one, and for what stays live with the main off."
            open={!first}
          >
            <One
              name="fed_by"
              label="Fed from"
              options={[
                ["", "the service"],
                ...feeders.map((b) => [b.breaker, `${b.tag} ${b.wording || b.claim || ""}`] as const),
              ]}
            />
            <Text name="tag" label="Letters before its numbers" upper help="G for G3; worked out if empty" />
            <One name="main_at" label="Main breaker is" options={LISTS.mains} />
            <One name="conductors" label="Service or feeder conductors" options={WIRES} />
            {values.conductors !== "" && (
              <>
                <One name="cable" label="Their cable" options={LISTS.cables} />
                <One name="terminals" label="Their heat marking" options={LISTS.terminals} />
              </>
            )}
            <Sources />
          </Folded>
          <Folded title="Neutral and ground" why="For the check of where the two may be joined.">
            <One
              name="service_disconnect"
              label="The service disconnect is"
              options={DISCONNECTS}
              help="Ask; do not infer it from “main”."
            />
            <One
              name="bond"
              label="Neutral and ground here are"
              options={BONDS}
              help="Only as an electrician read it: do not open the panel for this."
            />
            <YesOrNo name="ground_bar" label="Grounds have a bar of their own" />
            <Amount name="neutrals_doubled" label="Terminals with two neutrals" whole help="as seen; 0 if none" />
            <Tick name="three_wire_feeder" label="Old feeder of three wires to another building" wide />
          </Folded>
          <Folded title="On the label" why="For the checks of what belongs in it, and for where there is room.">
            <Text name="make" label="Maker" />
            <Text name="series" label="Series" />
            <Text name="types" label="Breaker types it names" help="with commas between" />
            <Amount name="interrupting_ka" label="Interrupting rating" unit="kA" whole />
            <Amount name="bus" label="Bus, amps" whole />
            <Amount name="circuits" label="Circuits it is listed for" whole />
            <Amount name="splice_room" label="Room for splices" help="beside the breakers; 0 for none" whole />
            <One name="tandems" label="Tandems are allowed" options={TANDEMS} />
            {values.tandems === "in" && <Text name="tandem_spaces" label="Tandem spaces" />}
            <YesOrNo name="notched" label="Notched where tandems fit" />
            <YesOrNo name="plug_on_neutral" label="Rail for plug-on neutrals" />
            <Amount name="year" label="Year of make" whole />
          </Folded>
          <Folded title="The door card" why="For the size in which the new card is printed.">
            <Amount name="width" label="Door card width" unit="mm" required />
            <Amount name="height" label="Door card height" unit="mm" required />
          </Folded>
        </>
      )}
    </FormDialog>
  );
}

function numberingOf(panel: Panel | undefined): Values["numbering"] {
  if (typeof panel?.numbering === "object") return "engraved";
  if (panel?.columns === "one") return "one";
  return panel?.numbering === "straight_down" ? "straight_down" : "odd_even";
}

function valuesOf(panel: Panel | undefined, first: boolean, service: Panel["service"] | undefined): Values {
  const details: PanelDetails = panel?.details ?? { ...LISTS.unreadPanel, types: [] };
  const engraved = typeof panel?.numbering === "object" ? panel.numbering.as_engraved : null;
  return {
    name: panel?.name ?? (first ? "Main panel" : ""),
    place: panel?.place ?? "",
    spaces: String(panel?.spaces ?? (first ? 24 : 8)),
    main: count(panel?.main),
    numbering: numberingOf(panel),
    left: engraved?.left.join(" ") ?? "",
    right: engraved?.right.join(" ") ?? "",
    service: panel?.service ?? service ?? "split_phase",
    interior: details.interior,
    fed_by: details.fed_by ?? "",
    tag: details.tag ?? panel?.tag ?? "",
    main_at: details.main_at,
    conductors: wireName(details.conductors),
    terminals: details.conductors?.terminals ?? "unread",
    cable: details.conductors?.cable ?? "not_read",
    sources: details.sources ?? null,
    service_disconnect: details.service_disconnect ?? "",
    bond: details.bond ?? "",
    ground_bar: yesNo(details.ground_bar),
    neutrals_doubled: count(details.neutrals_doubled),
    three_wire_feeder: details.three_wire_feeder,
    make: details.make,
    series: details.series,
    types: details.types.join(", "),
    interrupting_ka: count(details.interrupting_ka),
    bus: count(details.bus),
    circuits: count(details.circuits),
    splice_room: count(details.splice_room),
    tandems: typeof details.tandems === "object" ? "in" : details.tandems,
    tandem_spaces: typeof details.tandems === "object" ? details.tandems.in.join(" ") : "",
    notched: yesNo(details.notched),
    plug_on_neutral: yesNo(details.plug_on_neutral),
    year: count(details.year),
    width: String(panel?.card.width_mm ?? 130),
    height: String(panel?.card.height_mm ?? 210),
  };
}

function factOf(panel: string, values: Values, before: Panel | undefined): Fact {
  const engraved = values.numbering === "engraved";
  const columns = { left: numbers(values.left), right: numbers(values.right) };
  const all = [...columns.left, ...columns.right];
  const spaces = engraved ? all.filter((n) => n > 0).length : Number(values.spaces);
  const wrong = engraved && all.some((n) => !Number.isInteger(n) || n < 0 || n > 255);
  if (!Number.isInteger(spaces) || spaces < 0 || spaces > 255 || wrong)
    throw new Error("The number of spaces is a whole number from 2 to 84. Nothing was recorded.");
  return {
    kind: "panel_described",
    panel,
    name: values.name,
    place: values.place,
    spaces,
    columns: values.numbering === "one" || (engraved && columns.right.length === 0) ? "one" : "two",
    numbering: engraved ? { as_engraved: columns } : values.numbering === "odd_even" ? "odd_even" : "straight_down",
    service: values.service,
    main: numberOrNull(values.main),
    card: { width_mm: Number(values.width), height_mm: Number(values.height) },
    details: {
      interior: values.interior,
      fed_by: values.fed_by || null,
      // Letters that were worked out are not taken for typed ones.
      tag:
        values.tag === (before?.details.tag ?? before?.tag ?? "") ? (before?.details.tag ?? null) : values.tag || null,
      main_at: values.main_at,
      conductors: wireOf(values.conductors, before?.details.conductors, {
        terminals: values.terminals,
        cable: values.cable,
      }),
      sources: values.sources,
      service_disconnect: values.service_disconnect || null,
      bond: values.bond || null,
      ground_bar: fromYesNo(values.ground_bar),
      neutrals_doubled: numberOrNull(values.neutrals_doubled),
      three_wire_feeder: values.three_wire_feeder,
      make: values.make,
      series: values.series,
      types: values.types
        .split(",")
        .map((word) => word.trim())
        .filter((word) => word !== ""),
      interrupting_ka: numberOrNull(values.interrupting_ka),
      bus: numberOrNull(values.bus),
      circuits: numberOrNull(values.circuits),
      splice_room: numberOrNull(values.splice_room),
      tandems: values.tandems === "in" ? { in: numbers(values.tandem_spaces) } : values.tandems,
      notched: fromYesNo(values.notched),
      plug_on_neutral: fromYesNo(values.plug_on_neutral),
      year: numberOrNull(values.year),
    },
  };
}

/** Other sources: none asked after, none there, or these. */
function Sources() {
  const { field } = useController<Values, "sources">({ name: "sources" });
  const sources = field.value;
  return (
    <Box sx={{ gridColumn: "1 / -1" }}>
      <Typography variant="body2">What else can feed it? Each stays live when the main is off.</Typography>
      {LISTS.sources.map(([source, words]) => (
        <FormControlLabel
          key={source}
          label={words}
          control={
            <Checkbox
              checked={sources?.includes(source) ?? false}
              onChange={(event) => {
                const rest = (sources ?? []).filter((other) => other !== source);
                field.onChange(event.target.checked ? [...rest, source] : rest);
              }}
            />
          }
        />
      ))}
      <FormControlLabel
        label="Nothing else, I have asked"
        control={
          <Checkbox
            checked={sources?.length === 0}
            onChange={(event) => field.onChange(event.target.checked ? [] : null)}
          />
        }
      />
    </Box>
  );
}

function Part({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr" }, mb: 2 }}>
      {children}
    </Box>
  );
}

/** Fields that a first visit can do without, under a button that says what they are for. */
function Folded({
  title,
  why,
  open = false,
  children,
}: {
  title: string;
  why: string;
  open?: boolean;
  children: ReactNode;
}) {
  const [shown, setShown] = useState(open);
  return (
    <Box component="section" sx={{ mb: 1.5 }}>
      <Stack
        direction="row"
        useFlexGap
        spacing={1.5}
        sx={{ flexWrap: "wrap", alignItems: "center", mb: shown ? 2 : 0 }}
      >
        <Button
          variant="outlined"
          color="inherit"
          aria-expanded={shown}
          onClick={() => setShown(!shown)}
          sx={{ minWidth: 190 }}
        >
          {title}
        </Button>
        <Typography variant="body2" color="text.secondary">
          {why}
        </Typography>
      </Stack>
      {shown && <Part>{children}</Part>}
    </Box>
  );
}
