import { useState } from "react";
import type { Fact, Instrument, PointToSee, RoomToWalk, Seen, TraceView } from "../../api/client";
import { usePending, useRecord } from "../../api/record";
import { useNotice } from "../../app/useNotice";

/** What a point shows on this screen: as recorded, or as this device has just written it. */
export interface Shown {
  point: PointToSee;
  room: string;
  seen: Seen | null;
  skipped: boolean;
  waiting: boolean;
}

export interface Looks {
  shown: Shown[];
  current: Shown | undefined;
  last: Shown | undefined;
  choose: (point: string) => void;
  look: (shown: Shown, seen: Seen) => void;
  skip: (shown: Shown) => void;
  restLit: (room: RoomToWalk) => void;
  strikeLast: () => void;
  noticedDark: (point: string) => void;
  switchBreaker: (breakers: string[], to: "on" | "off") => void;
  record: (facts: Fact[]) => void;
}

const roomsOf = (view: TraceView): RoomToWalk[] => ("rooms" in view.next ? view.next.rooms : []);

const instrumentFor = (point: PointToSee): Instrument =>
  point.kind === "receptacle" && point.volts === 120 ? "plug_in_tester" : "eye";

/** The acts of the walk. Each look is recorded under the breakers that this screen shows as off. */
export function useLooks(home: string, view: TraceView): Looks {
  const record = useRecord(home);
  const say = useNotice();
  const pending = usePending();
  const [chosen, setChosen] = useState<string | null>(null);
  const [lastPoint, setLastPoint] = useState<string | null>(null);

  const written = new Map<string, Seen | "skipped">();
  for (const batch of pending) {
    if (batch.home !== home || (batch.seq !== undefined && batch.seq <= view.seq)) continue;
    for (const { fact } of batch.entries) {
      if (fact.kind === "point_seen") written.set(fact.point, fact.seen);
      if (fact.kind === "point_skipped") written.set(fact.point, "skipped");
    }
  }
  const shown: Shown[] = roomsOf(view).flatMap((room) =>
    room.points.map((point) => {
      const now = written.get(point.point);
      const seen = now === "skipped" ? null : (now ?? point.seen ?? null);
      return {
        point,
        room: room.name,
        seen,
        skipped: now === "skipped" || (!now && point.skipped),
        waiting: now !== undefined,
      };
    }),
  );
  const todo = shown.filter((s) => s.seen === null && !s.skipped);
  const current = shown.find((s) => s.point.point === chosen) ?? todo[0];
  const write = (facts: Fact[], instrument?: Instrument) => {
    record(facts, { expectOff: view.off, ...(instrument && { instrument }) }).catch(say.problem);
  };

  return {
    shown,
    current,
    last: shown.find((s) => s.point.point === lastPoint && s.point.line),
    choose: setChosen,
    look: (target, seen) => {
      const { point } = target;
      if (target.seen === seen || target.waiting) return;
      const wrong: Fact[] = point.line ? [{ kind: "line_struck", line: point.line }] : [];
      write([...wrong, { kind: "point_seen", point: point.point, seen }], instrumentFor(point));
      setLastPoint(point.point);
      setChosen(null);
    },
    skip: (target) => {
      if (target.waiting) return;
      write([{ kind: "point_skipped", point: target.point.point, reason: "" }]);
      setChosen(null);
    },
    restLit: (room) => {
      const rest = shown.filter((s) => s.room === room.name && s.seen === null && !s.skipped);
      write(
        rest.map((s) => ({ kind: "point_seen", point: s.point.point, seen: "lit" })),
        "eye",
      );
    },
    strikeLast: () => {
      const line = shown.find((s) => s.point.point === lastPoint)?.point.line;
      if (line) record([{ kind: "line_struck", line }]).catch(say.problem);
      setLastPoint(null);
    },
    noticedDark: (point) => write([{ kind: "point_seen", point, seen: "dark" }], "eye"),
    switchBreaker: (breakers, to) => {
      setChosen(null);
      setLastPoint(null);
      record(breakers.map((breaker) => ({ kind: "breaker_switched", breaker, to }))).catch(say.problem);
    },
    record: (facts) => void record(facts).catch(say.problem),
  };
}
