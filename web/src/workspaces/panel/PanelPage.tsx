import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import type { HomeOverview, Place, PanelView } from "../../api/client";
import { useMoves } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Fingerpost, type Moving } from "../../drawing/Fingerpost";
import { breakerOf, placeOfBlade, placeOfOpen, type PostPlace } from "../../drawing/place";
import { Block } from "../../parts/Block";
import { PanelCautions } from "../../parts/Cautions";
import { Empty } from "../../parts/Empty";
import { FindingList } from "../../app/FindingList";
import { BreakerPane } from "./BreakerPane";
import { CardDialog } from "./CardDialog";
import { LegDialog } from "./LegDialog";
import { PanelDialog } from "./PanelDialog";
import { PanelTabs } from "./PanelTabs";
import { PhotoBlock } from "./PhotoBlock";
import { SpacePane } from "./SpacePane";

const SERVICE = {
  split_phase: "split-phase 120/240 V",
  two_legs_208: "two legs of 208Y/120 V",
  three_phase: "three-phase 208Y/120 V",
  high_leg: "three-phase with a high leg",
  one_leg_120: "120 V only",
} as const;

/** What is in the box: the fingerpost, and what is meant by each blade. */
export function PanelPage() {
  const home = useThisHome();
  const { panel } = useParams();
  const view = home.panels.find((p) => p.panel.id === panel) ?? home.panels[0];
  if (!view) return <NoPanel home={home} />;
  return <OnePanel key={view.panel.id} home={home} view={view} />;
}

function NoPanel({ home }: { home: HomeOverview }) {
  const [open, setOpen] = useState(false);
  return (
    <Empty
      title="Which panel is it?"
      words="Describe the box first: its name, how many spaces it has and how they are numbered. No cover has to come off for that."
    >
      <Button variant="contained" onClick={() => setOpen(true)}>
        Describe the panel
      </Button>
      <PanelDialog home={home} before={undefined} open={open} onClose={() => setOpen(false)} />
    </Empty>
  );
}

function OnePanel({ home, view }: { home: HomeOverview; view: PanelView }) {
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  // On paper the post is drawn as at a desk, however narrow the sheet.
  const printing = useMediaQuery("print");
  const navigate = useNavigate();
  const act = useAct(home.id);
  const [query, setQuery] = useSearchParams();
  const selected: PostPlace | null = query.get("at");
  const setSelected = (place: PostPlace) => setQuery({ at: place }, { replace: true });
  const [open, setOpen] = useState<"card" | "panel" | "another" | "leg" | null>(null);
  const [files, setFiles] = useState<HTMLElement | null>(null);
  const [zoom, setZoom] = useState(1);
  const larger = () => setZoom(Math.min(3, zoom * 1.25));
  const smaller = () => setZoom(Math.max(0.4, zoom / 1.25));
  const [picked, setPicked] = useState<string | null>(null);
  const moves = useMoves(home.id, picked);
  const pane = useRef<HTMLDivElement>(null);
  const drawing = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // On a phone the pane is below the post: what was selected comes into sight.
    if (!wide && selected !== null) pane.current?.scrollIntoView({ block: "start" });
  }, [wide, selected]);
  const { panel } = view;
  const close = () => setOpen(null);
  const breaker = view.breakers.find((b) => placeOfBlade(b) === selected);
  const space = view.open.find((o) => placeOfOpen(o) === selected);
  const counting = home.findings.filter((finding) => finding.aside == null);
  const here = counting.filter((finding) => finding.place.panel === panel.id);
  const worry = (breaker: string) => {
    const about = here.filter((finding) => finding.place.breaker === breaker).map((finding) => finding.severity);
    return about.includes("danger") ? "danger" : about.includes("fault") ? "fault" : null;
  };
  const about = breaker
    ? here.filter((finding) => finding.place.breaker === breaker.breaker)
    : space
      ? here.filter((finding) => finding.place.space === space.number)
      : here.filter((finding) => finding.place.breaker == null && finding.place.space == null);
  const grave = counting.filter(({ severity }) => severity === "danger" || severity === "fault").length;

  const pick = (breaker: string) => {
    setPicked(breaker);
    setSelected(`b:${breaker}`);
    drawing.current?.querySelector<SVGElement>(`[data-place="b:${breaker}"]`)?.focus();
  };
  const dropped = async (place: Place) => {
    if (picked === null) return;
    const before = breakerOf(home, picked);
    const number = before?.number ?? "";
    const proven = before?.proven ?? 0;
    // A move of the record takes the proofs along: right when the breaker moved, wrong when only the drawing did.
    const along =
      proven === 0
        ? ""
        : ` What was proven on it went with it: if it was the handle in ${number} that was switched for that, strike this out.`;
    // A place that is not allowed is sent too: the logbook says why, in a sentence.
    const done = await act(
      [{ kind: "breaker_moved", breaker: picked, at: place.at }],
      `Breaker ${number} sits in ${place.number} now.${along}`,
    );
    if (done) setPicked(null);
  };
  const moving: Moving | null =
    picked !== null && moves.data
      ? {
          breaker: picked,
          places: moves.data.places,
          onDrop: (place) => void dropped(place),
          onLeave: () => setPicked(null),
        }
      : null;
  const fed = panel.details.fed_by == null ? undefined : breakerOf(home, panel.details.fed_by);
  const upstream = home.panels.find((p) => p.breakers.some((b) => b.breaker === fed?.breaker));
  return (
    <Box
      className="panel-page"
      sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 372px" } }}
    >
      <Box ref={drawing}>
        {home.panels.length > 1 && <PanelTabs home={home} shown={panel.id} />}
        <Typography variant="h1">
          {panel.name}
          {panel.place && `, ${panel.place}`}
        </Typography>
        <Typography color="text.secondary">
          {panel.spaces} spaces · {SERVICE[panel.service]}
          {panel.main != null && ` · ${panel.main} A main`}
          {panel.details.bus != null && ` · ${panel.details.bus} A bus`} · {home.progress.proven} of{" "}
          {home.progress.points} points proven
        </Typography>
        {fed && upstream && (
          <Typography>
            Fed from breaker{" "}
            <Link to={`/h/${home.id}/panel/${upstream.panel.id}?at=${encodeURIComponent(placeOfBlade(fed))}`}>
              {fed.tag}
            </Link>{" "}
            of {upstream.panel.name}: off there, everything here is off.
          </Typography>
        )}
        <Stack direction="row" useFlexGap spacing={1} sx={{ my: 2, flexWrap: "wrap" }} className="no-print">
          <Button variant={view.breakers.length === 0 ? "contained" : "outlined"} onClick={() => setOpen("card")}>
            Type the card
          </Button>
          <Button variant="outlined" onClick={() => setOpen("panel")}>
            Describe the panel
          </Button>
          <Button variant="outlined" component={Link} to={`/h/${home.id}/checks`}>
            {grave === 0 ? "Worth a look" : `Worth a look: ${grave}`}
          </Button>
          <Button
            variant="outlined"
            aria-haspopup="menu"
            aria-label="More for this panel"
            onClick={(e) => setFiles(e.currentTarget)}
          >
            More
          </Button>
          <Menu anchorEl={files} open={files !== null} onClose={() => setFiles(null)}>
            {(
              [
                ["another", "Another panel"],
                ["leg", "A reading between two spaces"],
              ] as const
            ).map(([which, words]) => (
              <MenuItem
                key={which}
                onClick={() => {
                  setFiles(null);
                  setOpen(which);
                }}
              >
                {words}
              </MenuItem>
            ))}
            {!wide && <MenuItem onClick={larger}>Draw it larger</MenuItem>}
            {!wide && <MenuItem onClick={smaller}>Draw it smaller</MenuItem>}
            {(["csv", "xlsx", "ods", "txt"] as const).map((format) => (
              <MenuItem
                key={format}
                component="a"
                href={`/api/homes/${home.id}/panels/${panel.id}/circuits/${format}`}
                onClick={() => setFiles(null)}
              >
                Circuits as {format === "txt" ? "text, as typed" : format.toUpperCase()}
              </MenuItem>
            ))}
            <MenuItem
              onClick={() => {
                setFiles(null);
                setTimeout(() => window.print(), 0);
              }}
            >
              Print this panel
            </MenuItem>
          </Menu>
          {wide && (
            <>
              <Button variant="outlined" aria-label="Draw it larger" onClick={larger} sx={{ minWidth: 44, px: 1 }}>
                +
              </Button>
              <Button variant="outlined" aria-label="Draw it smaller" onClick={smaller} sx={{ minWidth: 44, px: 1 }}>
                −
              </Button>
            </>
          )}
        </Stack>
        {picked !== null && (
          <Typography variant="body2" sx={{ mb: 1 }}>
            Where does it sit? Arrows and Enter, or point at a place; Escape leaves it. This changes the record: moving
            the breaker itself is work in an open panel.
          </Typography>
        )}
        <Fingerpost
          view={view}
          selected={selected}
          onSelect={setSelected}
          narrow={!wide && !printing}
          worry={worry}
          moving={moving}
          onPick={pick}
          zoom={zoom}
        />
      </Box>
      <Stack spacing={2} ref={pane} className="no-print">
        {breaker ? (
          <BreakerPane
            key={breaker.breaker}
            home={home}
            view={view}
            breaker={breaker}
            onMove={() => {
              pick(breaker.breaker);
              if (!wide) drawing.current?.scrollIntoView({ block: "start" });
            }}
          />
        ) : space ? (
          <SpacePane
            key={placeOfOpen(space)}
            home={home}
            panel={panel}
            space={space}
            onPlaced={(breaker) => setSelected(`b:${breaker}`)}
          />
        ) : (
          <Block title="Select a breaker">
            <Typography color="text.secondary">
              Select a breaker to see what it feeds, or an open space to put a breaker in. Arrows go from breaker to
              breaker; a number goes to that space; m moves a breaker.
            </Typography>
          </Block>
        )}
        {about.length > 0 && (
          <Block title={breaker || space ? "Worth a look here" : "About this panel"}>
            <FindingList home={home.id} findings={about} />
          </Block>
        )}
        <PanelCautions view={view} />
        {!space && <PhotoBlock home={home.id} view={view} {...(breaker && { breaker: breaker.breaker })} />}
      </Stack>
      <PanelDialog home={home} before={panel} open={open === "panel"} onClose={close} />
      <PanelDialog
        home={home}
        before={undefined}
        open={open === "another"}
        onClose={close}
        onKept={(kept) => void navigate(`/h/${home.id}/panel/${kept}`)}
      />
      <CardDialog home={home} panel={panel} open={open === "card"} onClose={close} />
      <LegDialog home={home.id} panel={panel} open={open === "leg"} onClose={close} />
    </Box>
  );
}
