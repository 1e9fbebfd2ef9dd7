import type { HomeOverview, OpenSpace, Panel } from "../../api/client";
import { numberOfOpen } from "../../drawing/place";
import { Block } from "../../parts/Block";
import { BreakerForm } from "./BreakerForm";

interface Props {
  home: HomeOverview;
  panel: Panel;
  space: OpenSpace;
  onPlaced: (breaker: string) => void;
}

/** An open space: put a breaker into the record. */
export function SpacePane({ home, panel, space, onPlaced }: Props) {
  const number = numberOfOpen(space);
  return (
    <Block title={`Space ${number}, open`}>
      <BreakerForm home={home} panel={panel.id} blade={null} number={number} onDone={onPlaced} />
    </Block>
  );
}
