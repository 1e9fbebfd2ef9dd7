import { useState } from "react";
import type { Fact, Instrument, PointToSee, RoomToWalk, Seen, Since } from "../../api/client";
import { useMeanwhile, useRecord } from "../../api/record";
import { useNotice } from "../../app/useNotice";

/** What a point shows on this screen: as recorded, or as this device has just written it. */
export interface Shown {
  point: PointToSee;
  room: string;
  roomId: string;
  seen: Seen | null;
  skipped: boolean;
  /** Volts of a meter that are neither lit nor dark. */
  between: number | null;
  waiting: boolean;
  /** A helper is in the room. */
  taken: boolean;
}

export interface Looks {
  shown: Shown[];
  current: Shown | undefined;
  /** What this screen wrote last, a look or the rest of a room, as long as no breaker has moved since. */
  last: { lines: string[]; words: string } | null;
  choose: (point: string) => void;
  look: (shown: Shown, seen: Seen) => void;
  /** The point at which a meter is held: its volts are being entered. */
  metering: string | null;
  meter: (point: string | null) => void;
  readVolts: (shown: Shown, volts: number) => void;
  skip: (shown: Shown) => void;
  skipPoint: (point: string, reason: string) => void;
  /** Everything of the room that was not looked at yet shows the same. */
  restOf: (room: RoomToWalk, seen: Seen) => void;
  strikeLast: () => void;
  noticedDark: (point: string) => void;
  /** Writes what a step's button says was done. */
  act: (facts: Fact[]) => void;
}

/** What a screen has to look at, and how far it has followed the logbook and the switching. */
export interface Walk {
  seq: number;
  lastTurn: Since;
  rooms: RoomToWalk[];
  /** A radio is listened to from the panel. */
  listen?: boolean;
}

/** The acts of the walk. Each look is recorded under the switching that this screen knows of. */
export function useLooks(home: string, walk: Walk): Looks {
  const record = useRecord(home);
  const say = useNotice();
  const meanwhile = useMeanwhile(home, walk.seq);
  const [chosen, setChosen] = useState<string | null>(null);
  const [last, setLast] = useState<Looks["last"]>(null);

  // None chosen yet: where volts are asked for, the field is open.
  const [chosenMeter, setMetering] = useState<string | null>(null);

  const written = new Map<string, Seen | "skipped" | number>();
  for (const fact of meanwhile) {
    if (fact.kind === "point_seen") written.set(fact.point, fact.seen);
    if (fact.kind === "point_skipped") written.set(fact.point, "skipped");
    if (fact.kind === "volts_read") written.set(fact.point, fact.volts);
  }
  const shown: Shown[] = walk.rooms.flatMap((room) =>
    room.points.map((point) => {
      const now = written.get(point.point);
      const seen = now === "lit" || now === "dark" ? now : now === undefined ? (point.seen ?? null) : null;
      const between = now === undefined ? (point.between ?? null) : typeof now === "number" ? now : null;
      return {
        point,
        room: room.name,
        roomId: room.room,
        seen,
        skipped: now === "skipped" || (now === undefined && point.skipped),
        between,
        waiting: now !== undefined,
        taken: (room.who ?? []).length > 0,
      };
    }),
  );
  const todo = shown.filter((s) => s.seen === null && !s.skipped && !s.waiting);
  const current = shown.find((s) => s.point.point === chosen) ?? todo.find((s) => !s.taken) ?? todo[0];
  const asked = current?.point.measure && !current.waiting && current.seen === null ? current.point.point : null;
  const metering = chosenMeter === null ? asked : chosenMeter || null;
  const write = (facts: Fact[], words: string, instrument?: Instrument) => {
    record(facts, { since: walk.lastTurn, ...(instrument && { instrument }) }).then((lines) => {
      const line = lines.at(-1);
      setLast(line && words ? { lines: [line], words } : null);
    }, say.problem);
    setChosen(null);
    setMetering(null);
  };
  // What was seen before under the same switching is corrected.
  const corrected = ({ point }: Shown): Fact[] => (point.line ? [{ kind: "line_struck", line: point.line }] : []);

  return {
    shown,
    current,
    last,
    choose: (point) => {
      setChosen(point);
      setMetering(null);
    },
    metering,
    meter: (point) => setMetering(point ?? ""),
    look: (target, seen) => {
      const { point } = target;
      if (target.seen === seen || target.waiting) return;
      const words = `${target.room}, ${point.name}, ${seen}`;
      const look: Fact = { kind: "point_seen", point: point.point, seen, ...(point.anew && { anew: true }) };
      const facts: Fact[] = [...corrected(target), look];
      write(facts, words, walk.listen ? "radio" : point.instrument);
    },
    readVolts: (target, volts) => {
      const { point } = target;
      if (target.waiting) return;
      const words = `${target.room}, ${point.name}, ${volts} V`;
      write([...corrected(target), { kind: "volts_read", point: point.point, volts }], words, "meter");
    },
    skip: (target) => {
      if (target.waiting) return;
      const words = `${target.room}, ${target.point.name}, skipped`;
      write([{ kind: "point_skipped", point: target.point.point, reason: "" }], words);
    },
    skipPoint: (point, reason) => write([{ kind: "point_skipped", point, reason }], "skipped"),
    restOf: (room, seen) => {
      const rest = shown.filter(
        (s) => s.roomId === room.room && s.seen === null && !s.skipped && s.between === null && !s.waiting,
      );
      // Each with what it is looked at with; struck out together.
      const batches = [...new Set(rest.map((s) => s.point.instrument))].map((instrument) => {
        const by = rest.filter((s) => s.point.instrument === instrument);
        const facts = by.map((s): Fact => ({ kind: "point_seen", point: s.point.point, seen }));
        return record(facts, { since: walk.lastTurn, instrument });
      });
      Promise.all(batches).then((lines) => {
        setLast({ lines: lines.flat(), words: `${room.name}, ${rest.length} ${seen}` });
      }, say.problem);
      setChosen(null);
      setMetering(null);
    },
    strikeLast: () => {
      if (last) record(last.lines.map((line) => ({ kind: "line_struck", line }))).catch(say.problem);
      setLast(null);
    },
    noticedDark: (point) => write([{ kind: "point_seen", point, seen: "dark" }], "noticed dark", "eye"),
    act: (facts) => {
      setChosen(null);
      setMetering(null);
      setLast(null);
      record(facts, { since: walk.lastTurn }).catch(say.problem);
    },
  };
}

/** Takes what the meter of a made-up house shows at the point that is asked for. */
export const metered = (looks: Looks): ((volts: number) => void) | undefined => {
  const { current } = looks;
  return current && ((volts) => looks.readVolts(current, volts));
};
