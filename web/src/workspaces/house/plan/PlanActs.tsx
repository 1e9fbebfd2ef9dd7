import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import type { HomeOverview, Plan, PlanFloor } from "../../../api/client";
import { today } from "../../../api/queries";
import { useAct } from "../../../app/useAct";
import { sentence } from "../../../parts/words";
import { BackdropDialog } from "./BackdropDialog";
import { DrawingDialog } from "./DrawingDialog";
import { FloorDialog } from "./FloorDialog";
import { RoomListDialog } from "./RoomListDialog";

interface Props {
  home: HomeOverview;
  plan: Plan;
  floor: PlanFloor;
  go: (floor: string) => void;
  onNewFloor: (name: string) => void;
  zoom: number;
  onZoom: (zoom: number) => void;
}

/** The floors, and what else can be done with the plan. */
export function PlanActs({ home, plan, floor, go, onNewFloor, zoom, onZoom }: Props) {
  const act = useAct(home.id);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState<"rooms" | "backdrop" | "drawing" | "floor" | null>(null);
  const then = (does: () => void) => () => {
    setAnchor(null);
    does();
  };
  const file = (format: string, one: boolean) =>
    `/api/homes/${home.id}/plan/file/${format}?date=${today()}${one ? `&floor=${encodeURIComponent(floor.name)}` : ""}`;
  const feet = plan.units === "feet_inches";
  return (
    <Stack direction="row" useFlexGap spacing={1} sx={{ my: 1.5, flexWrap: "wrap" }}>
      {plan.floors.length > 1 &&
        [...plan.floors].reverse().map((f) => (
          <Button
            key={f.name}
            variant={f.name === floor.name ? "contained" : "outlined"}
            color={f.name === floor.name ? "secondary" : "inherit"}
            aria-pressed={f.name === floor.name}
            onClick={() => go(f.name)}
          >
            {sentence(f.name)}
          </Button>
        ))}
      <Button variant="outlined" onClick={() => setOpen("rooms")}>
        Rooms as a list
      </Button>
      <Button
        variant="outlined"
        aria-haspopup="menu"
        aria-label="More for this floor"
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        More
      </Button>
      <Button
        variant="outlined"
        aria-label="Draw it larger"
        sx={{ minWidth: 44, px: 1 }}
        onClick={() => onZoom(Math.min(4, zoom * 1.4))}
      >
        +
      </Button>
      <Button
        variant="outlined"
        aria-label="Draw it smaller"
        sx={{ minWidth: 44, px: 1 }}
        onClick={() => onZoom(Math.max(0.2, zoom / 1.4))}
      >
        −
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={then(() => setOpen("floor"))}>Another floor</MenuItem>
        <MenuItem onClick={then(() => setOpen("backdrop"))}>A photo or scan underneath</MenuItem>
        {floor.backdrop && (
          <MenuItem
            onClick={then(() => void act([{ kind: "backdrop_removed", floor: floor.name }], "The picture is removed"))}
          >
            Take the picture away
          </MenuItem>
        )}
        <MenuItem onClick={then(() => setOpen("drawing"))}>Take rooms from a drawing (DXF)</MenuItem>
        <MenuItem component="a" href={file("pdf", false)} target="_blank" onClick={then(() => undefined)}>
          Every floor as PDF, to scale
        </MenuItem>
        <MenuItem component="a" href={file("svg", true)} target="_blank" onClick={then(() => undefined)}>
          This floor as SVG
        </MenuItem>
        <MenuItem component="a" href={file("dxf", true)} onClick={then(() => undefined)}>
          This floor as DXF
        </MenuItem>
        <MenuItem
          onClick={then(
            () =>
              void act(
                [{ kind: "units_chosen", units: feet ? "metric" : "feet_inches" }],
                feet ? "Lengths are in meters" : "Lengths are in feet and inches",
              ),
          )}
        >
          {feet ? "Lengths in meters" : "Lengths in feet and inches"}
        </MenuItem>
      </Menu>
      {open === "rooms" && <RoomListDialog home={home} floor={floor.name} onClose={() => setOpen(null)} />}
      {open === "backdrop" && <BackdropDialog home={home} floor={floor} onClose={() => setOpen(null)} />}
      {open === "drawing" && <DrawingDialog home={home} floor={floor} onClose={() => setOpen(null)} />}
      {open === "floor" && (
        <FloorDialog home={home} onClose={() => setOpen(null)} onKept={(name) => onNewFloor(name)} />
      )}
    </Stack>
  );
}
