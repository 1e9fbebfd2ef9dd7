import { useMemo } from "react";
import type { Fact, PlanFloor, PlanNow, PlanPoint, Spot } from "../../../api/client";
import { useMeanwhile } from "../../../api/record";

type Placed = Extract<Fact, { kind: "point_placed" }>;

/** The plan with the points that were put somewhere a moment ago, until the program has drawn them itself. */
export function usePlacedMeanwhile(home: string, plan: PlanNow): PlanNow {
  const meanwhile = useMeanwhile(home, plan.seq);
  return useMemo(() => {
    const stands = new Map<string, Spot>();
    const placed = new Map<string, Placed>();
    for (const fact of meanwhile) {
      if (fact.kind === "point_stands" && fact.at) stands.set(fact.point, fact.at);
      if (fact.kind === "point_placed") placed.set(fact.point, fact);
    }
    if (stands.size === 0) return plan;
    return { ...plan, floors: plan.floors.map((floor) => withPlaced(floor, stands, placed)) };
  }, [plan, meanwhile]);
}

function withPlaced(floor: PlanFloor, stands: Map<string, Spot>, placed: Map<string, Placed>): PlanFloor {
  const drawn = new Set(floor.points.map((p) => p.point));
  const moved = floor.points.map((point) => {
    const at = stands.get(point.point);
    return at && (at.x !== point.at.x || at.y !== point.at.y) ? shifted(point, at) : point;
  });
  const added = [...placed.values()].flatMap((fact) => {
    const at = stands.get(fact.point);
    const here = floor.rooms.some((room) => room.room === fact.room);
    return at && here && !drawn.has(fact.point) ? [bare(fact, at)] : [];
  });
  return { ...floor, points: [...moved, ...added] };
}

function shifted(point: PlanPoint, at: Spot): PlanPoint {
  const by = (spot: Spot): Spot => ({ x: spot.x + at.x - point.at.x, y: spot.y + at.y - point.at.y });
  return { ...point, at, middle: by(point.middle), tag: { ...point.tag, at: by(point.tag.at) } };
}

/** A new point before the program has said how it is turned and where its tag goes. */
function bare(fact: Placed, at: Spot): PlanPoint {
  return {
    point: fact.point,
    room: fact.room,
    at,
    middle: at,
    symbol: fact.point_kind === "receptacle" ? "duplex_receptacle" : fact.point_kind,
    turn: 0,
    spoken: `${fact.name}, being recorded`,
    tag: { kind: "open", text: "?", at: { x: at.x, y: at.y - 260 }, width: 200, left: false },
  };
}
