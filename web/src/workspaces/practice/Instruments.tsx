import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import type { HomeOverview, Instrument, Reading, TraceView } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { readInstrument } from "../../api/queries";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { Block } from "../../parts/Block";
import { DeviceActs } from "../../app/DeviceActs";
import { metered, type Looks } from "../trace/useLooks";
import { ReadingShown } from "./ReadingShown";

interface Props {
  home: HomeOverview;
  view: TraceView;
  looks: Looks;
}

/** In a made-up house: the instruments, held at the point that is asked for. */
export function Instruments({ home, view, looks }: Props) {
  if (view.next.step === "watch") {
    const { point, breaker, place } = view.next;
    return (
      <Seen
        key={`${point} ${view.seq}`}
        home={home.id}
        at={{ point, breaker }}
        title={`Your eyes at ${place}`}
        words="Watch while it is switched off and on"
      />
    );
  }
  const sending = view.next.step === "follow_tone";
  const point = view.next.step === "follow_tone" ? view.next.point : looks.current?.point.point;
  const known = home.points.find((p) => p.id === point);
  if (!known) return null;
  const room = home.rooms.find((r) => r.id === known.room)?.name ?? "";
  // Another point, or anything written since: what was read before no longer counts.
  return (
    <Kit
      key={`${known.id} ${view.seq}`}
      home={home.id}
      point={known.id}
      title={`${room}, ${known.name}`}
      mayAdd
      onVolts={sending ? undefined : metered(looks)}
    >
      <DeviceActs home={home} point={known.id} />
    </Kit>
  );
}

/** In a made-up house: how the handles stand. Somebody who moves one sees the others. */
export function Handles({ home, seq }: { home: string; seq: number }) {
  return (
    <Seen key={seq} home={home} at={{ handles: true }} title="Your eyes at the panel" words="Look over the handles" />
  );
}

interface SeenProps {
  home: string;
  at: Parameters<typeof readInstrument>[2];
  title: string;
  words: string;
}

/** What is seen without an instrument. */
function Seen({ home, at, title, words }: SeenProps) {
  const [reading, setReading] = useState<Reading | null>(null);
  const say = useNotice();
  return (
    <Block title={title}>
      <Button variant="outlined" onClick={() => void readInstrument(home, "eye", at).then(setReading, say.problem)}>
        {words}
      </Button>
      {reading && <ReadingShown reading={reading} />}
    </Block>
  );
}

interface KitProps {
  home: string;
  point: string;
  title: string;
  /** What is noticed beside can be put on the list. */
  mayAdd?: boolean;
  /** Takes the volts that the meter shows. */
  onVolts?: ((volts: number) => void) | undefined;
  children?: ReactNode;
}

/** Instruments at one point. */
export function Kit({ home, point, title, mayAdd = false, onVolts, children }: KitProps) {
  const [reading, setReading] = useState<Reading | null>(null);
  const say = useNotice();
  const act = useAct(home);
  const use = (instrument: Instrument) =>
    void readInstrument(home, instrument, { point }).then(setReading, say.problem);
  return (
    <Block title={`Your instruments at ${title}`}>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }} data-testid="kit">
        {LISTS.practiceKit.map(([instrument, words]) => (
          <Button
            key={instrument}
            variant="outlined"
            sx={{ bgcolor: reading?.instrument === instrument ? tone("rail") : undefined }}
            aria-pressed={reading?.instrument === instrument}
            onClick={() => use(instrument)}
          >
            {words}
          </Button>
        ))}
      </Stack>
      {reading && <ReadingShown reading={reading} />}
      {reading?.volts != null && onVolts && (
        <Button variant="contained" sx={{ mt: 1 }} onClick={() => onVolts(reading.volts ?? 0)}>
          Enter {reading.volts} V
        </Button>
      )}
      {reading?.noticed.map((missing) => (
        <Box key={missing.point} sx={{ mt: 1 }}>
          <Typography variant="body2">
            There is also a {missing.point_kind} here that is missing from the list: {missing.name}.
          </Typography>
          {mayAdd && (
            <Button
              variant="outlined"
              onClick={() => void act([{ kind: "point_placed", ...missing }], `${missing.name} is on the list`)}
            >
              Add it to the list
            </Button>
          )}
        </Box>
      ))}
      {children}
    </Block>
  );
}
