import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useEffect, useRef, useState } from "react";
import { useThisHome } from "../../app/useThisHome";
import { Fingerpost } from "../../drawing/Fingerpost";
import { placeOfBlade, placeOfOpen, type PostPlace } from "../../drawing/place";
import { Block } from "../../parts/Block";
import { Empty } from "../../parts/Empty";
import { FindingList } from "../../parts/FindingList";
import { PanelCautions } from "../../parts/Cautions";
import { BreakerPane } from "./BreakerPane";
import { CardDialog } from "./CardDialog";
import { PanelDialog } from "./PanelDialog";
import { SpacePane } from "./SpacePane";

const SERVICE = {
  split_phase: "split-phase 120/240 V",
  two_legs_208: "two legs of 208Y/120 V",
  three_phase: "three-phase 208Y/120 V",
} as const;

/** What is in the box: the fingerpost, and what is meant by each blade. */
export function PanelPage() {
  const home = useThisHome();
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const [selected, setSelected] = useState<PostPlace | null>(null);
  const [open, setOpen] = useState<"card" | "panel" | null>(null);
  const pane = useRef<HTMLDivElement>(null);
  const post = home.post;
  useEffect(() => {
    // On a phone the pane is below the post: what was selected comes into sight.
    if (!wide && selected !== null) pane.current?.scrollIntoView({ block: "start" });
  }, [wide, selected]);
  const dialogs = (
    <>
      <PanelDialog home={home} open={open === "panel"} onClose={() => setOpen(null)} />
      {post && <CardDialog home={home} panel={post.panel} open={open === "card"} onClose={() => setOpen(null)} />}
    </>
  );
  if (!post) {
    return (
      <Empty
        title="Which panel is it?"
        words="Describe the box first: its name, how many spaces it has and how they are numbered. No cover has to come off for that."
      >
        <Button variant="contained" onClick={() => setOpen("panel")}>
          Describe the panel
        </Button>
        {dialogs}
      </Empty>
    );
  }
  const panel = post.panel;
  const blade = post.blades.find((b) => placeOfBlade(b) === selected);
  const space = post.open.find((o) => placeOfOpen(o) === selected);
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 372px" } }}>
      <Box>
        <Typography variant="h1">
          {panel.name}
          {panel.place && `, ${panel.place}`}
        </Typography>
        <Typography color="text.secondary">
          {panel.spaces} spaces · {SERVICE[panel.service]}
          {panel.main != null && ` · ${panel.main} A main`} · {home.progress.proven} of {home.progress.points} points
          proven
        </Typography>
        <Stack direction="row" spacing={1.5} sx={{ my: 2 }}>
          <Button variant={post.blades.length === 0 ? "contained" : "outlined"} onClick={() => setOpen("card")}>
            Type the card
          </Button>
          <Button variant="outlined" onClick={() => setOpen("panel")}>
            Describe the panel
          </Button>
        </Stack>
        <Fingerpost post={post} selected={selected} onSelect={setSelected} narrow={!wide} />
      </Box>
      <Stack spacing={2} ref={pane}>
        {blade ? (
          <BreakerPane key={blade.breaker} home={home} blade={blade} />
        ) : space ? (
          <SpacePane
            key={placeOfOpen(space)}
            home={home}
            panel={panel}
            space={space}
            onPlaced={(breaker) => setSelected(`b:${breaker}`)}
          />
        ) : (
          <Block title="Select a blade">
            <Typography color="text.secondary">
              Select a breaker to see what it feeds, or an open space to put a breaker in. Arrows go along the post; a
              number goes to that space.
            </Typography>
          </Block>
        )}
        <FindingList findings={home.findings} onSelect={(breaker) => setSelected(`b:${breaker}`)} />
        <PanelCautions />
      </Stack>
      {dialogs}
    </Box>
  );
}
