import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { HomeOverview, OpenSpace, Panel } from "../../api/client";
import { useAct } from "../../app/useAct";
import { Block } from "../../parts/Block";
import { BreakerForm } from "./BreakerForm";

interface Props {
  home: HomeOverview;
  panel: Panel;
  space: OpenSpace;
  onPlaced: (breaker: string) => void;
}

/** An open space: is it closed, and put a breaker into the record. */
export function SpacePane({ home, panel, space, onPlaced }: Props) {
  const act = useAct(home.id);
  const { number } = space;
  const seen = (filler: boolean) =>
    void act(
      [{ kind: "filler_seen", panel: panel.id, at: number, filler }],
      filler ? `Space ${number}: a filler closes it.` : `Space ${number}: open, and nothing closes it.`,
    );
  return (
    <Block title={`Space ${number}, open`}>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {space.filler == null
          ? "Is it closed by a filler plate? Look, do not touch."
          : space.filler
            ? "A filler closes it."
            : "Nothing closes it: put nothing into it, and keep children away until a filler is in."}
      </Typography>
      <Stack direction="row" spacing={1} sx={{ mb: 2.5 }}>
        {space.filler !== true && (
          <Button variant="outlined" onClick={() => seen(true)}>
            A filler closes it
          </Button>
        )}
        {space.filler !== false && (
          <Button variant="outlined" onClick={() => seen(false)}>
            It is open, without a filler
          </Button>
        )}
      </Stack>
      <BreakerForm home={home} panel={panel.id} breaker={null} number={number} fits={space.fits} onDone={onPlaced} />
    </Block>
  );
}
