import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { HomeOverview, KeptSizeLine, SizesView } from "../../../api/client";
import { useSize, useSizes } from "../../../api/queries";
import { newId } from "../../../api/record";
import { useAct } from "../../../app/useAct";
import { useThisHome } from "../../../app/useThisHome";
import { wordsOf } from "../../../app/useNotice";
import { Block } from "../../../parts/Block";
import { readKept, writeKept } from "../../../parts/form/kept";
import { Loaded } from "../../../parts/Loaded";
import { askedOf, draftOf, emptyDraft, type Draft } from "./asked";
import { SizeForm } from "./SizeForm";
import { SizeSheet } from "./SizeSheet";

/** The size of a new circuit, rule by rule. */
export function SizePage() {
  const home = useThisHome();
  const [params, setParams] = useSearchParams();
  const kept = params.get("kept") ?? "";
  const sizes = useSizes(home.id);
  return (
    <>
      <Button component={Link} to={`/h/${home.id}/work`} color="inherit" sx={{ mb: 1 }}>
        Work in a panel
      </Button>
      <Loaded query={sizes} what="sizes">
        {(view: SizesView) => {
          const line = view.sizes.find((one) => one.size === kept);
          return (
            <Sizing
              key={line?.size ?? "new"}
              home={home}
              view={view}
              line={line}
              onOpen={(size) => setParams(size === "" ? {} : { kept: size })}
            />
          );
        }}
      </Loaded>
    </>
  );
}

interface Props {
  home: HomeOverview;
  view: SizesView;
  line: KeptSizeLine | undefined;
  /** Opens a kept one, or a new one. */
  onOpen: (size: string) => void;
}

function Sizing({ home, view, line, onOpen }: Props) {
  const { units } = view;
  const act = useAct(home.id);
  const recorded =
    line === undefined ? emptyDraft(home.panels[0]?.panel.id ?? "") : draftOf(line.name, line.asked, units);
  // What is typed and not yet recorded is there again after a reload.
  const shelf = `size ${home.id} ${line?.size ?? "new"}`;
  const [draft, setDraft] = useState<Draft>(() => ({ ...recorded, ...(readKept(shelf) as Partial<Draft> | null) }));
  const changed = JSON.stringify(draft) !== JSON.stringify(recorded);
  useEffect(() => writeKept(shelf, changed ? draft : null), [shelf, changed, draft]);
  const change = (changes: Partial<Draft>) => setDraft((before) => ({ ...before, ...changes }));
  const now = useMemo(() => askedOf(draft, units), [draft, units]);
  const asked = useDeferredValue(now);
  const size = useSize(home.id, draft.name, asked);
  const found = asked === null ? undefined : size.data;
  const keep = async () => {
    if (asked === null) return;
    const id = line?.size ?? newId();
    const name = draft.name.trim() === "" ? "New circuit" : draft.name.trim();
    if (!(await act([{ kind: "size_kept", size: id, name, asked }], `Kept: ${name}`))) return;
    writeKept(shelf, null);
    onOpen(id);
  };
  const wish = (said: string) =>
    `/h/${home.id}/work?${new URLSearchParams({ wish: said, ...(draft.panel !== "" && { panel: draft.panel }) }).toString()}`;
  return (
    <>
      <Typography variant="h1" data-testid="size-title" sx={{ mb: 0.5 }}>
        {found === undefined ? "The size of a new circuit" : `${found.words}.`}
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 2, maxWidth: 720 }}>
        By the rules, from memory; the plate of the appliance, local code and the inspector come first. New circuits are
        for qualified people, with a permit where the local code wants one.
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 4,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "300px minmax(0, 1fr)" },
        }}
      >
        <SizeForm home={home} units={units} draft={draft} onChange={change} />
        <Box>
          {asked === null && (
            <Typography>
              Say what the circuit feeds, and what its plate says: breaker, wire and all that goes with them follow.
            </Typography>
          )}
          {asked !== null && size.isError && (
            <Alert severity="warning" variant="outlined" data-testid="size-refused" sx={{ mb: 2 }}>
              {wordsOf(size.error)}
            </Alert>
          )}
          {found !== undefined && (
            <>
              <Typography data-testid="size-run">{found.run}</Typography>
              {found.unread.length > 0 && (
                <Typography variant="body2">Not read yet: {found.unread.join("; ")}.</Typography>
              )}
              <Stack direction="row" useFlexGap spacing={1.5} sx={{ my: 2, flexWrap: "wrap" }}>
                <Button variant="contained" component={Link} to={wish(found.wish)}>
                  Find room for it
                </Button>
                <Button variant="outlined" onClick={() => void keep()} disabled={!changed}>
                  {line === undefined ? "Keep it" : "Keep the changes"}
                </Button>
                {changed && (
                  <Button color="inherit" onClick={() => setDraft(recorded)}>
                    Discard what was typed
                  </Button>
                )}
              </Stack>
              <SizeSheet view={found} said={draft.said} onSaid={(said) => change({ said })} />
            </>
          )}
          <Kept home={home.id} view={view} open={line?.size ?? ""} onOpen={onOpen} />
        </Box>
      </Box>
    </>
  );
}

interface KeptProps {
  home: string;
  view: SizesView;
  open: string;
  onOpen: (size: string) => void;
}

/** Circuits that were sized before. */
function Kept({ home, view, open, onOpen }: KeptProps) {
  const act = useAct(home);
  if (view.sizes.length === 0) return null;
  return (
    <Box sx={{ mt: 3 }}>
      <Block title="Kept">
        <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
          {view.sizes.map((one) => (
            <Box
              component="li"
              key={one.size}
              data-kept={one.name}
              sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, alignItems: "center" }}
            >
              <Box sx={{ flex: 1, minWidth: 200, fontWeight: one.size === open ? 700 : 400 }}>
                {one.name}: {one.words}
              </Box>
              <Button color="inherit" onClick={() => onOpen(one.size)} disabled={one.size === open}>
                Open {one.name}
              </Button>
              <Button
                color="inherit"
                onClick={() => {
                  void act([{ kind: "size_dropped", size: one.size }], `No longer kept: ${one.name}`);
                  if (one.size === open) onOpen("");
                }}
              >
                Drop {one.name}
              </Button>
            </Box>
          ))}
        </Box>
        {open !== "" && (
          <Button variant="outlined" color="inherit" onClick={() => onOpen("")} sx={{ mt: 1 }}>
            Size another circuit
          </Button>
        )}
      </Block>
    </Box>
  );
}
