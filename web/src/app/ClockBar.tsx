import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import type { DarkClock, Fact } from "../api/client";
import { StepCardShown } from "../parts/StepCardShown";
import { sentence } from "../parts/words";
import { wasSetBack } from "../api/clock";
import { useClocks } from "./useClocks";

interface Props {
  home: string;
  clocks: DarkClock[];
  onFacts: (facts: Fact[]) => void;
}

/** What may be without power only so long: how long is left, on every screen; and what to switch on when it has run out. */
export function ClockBar({ home, clocks, onFacts }: Props) {
  const { running, over, left } = useClocks({ clocks });
  return (
    <>
      {over.map((clock) => (
        <Box
          key={clock.point}
          data-testid="clock-over"
          ref={show}
          sx={{ p: 1, pb: 0, position: { md: "sticky" }, top: 56, zIndex: 19 }}
        >
          <StepCardShown card={clock.card} home={home} onFacts={onFacts}>
            <b role="timer">{left(clock) > 0 ? `${said(left(clock))} left` : "Its time without power is up."}</b>{" "}
            {doubtOf(clock, left(clock))}
          </StepCardShown>
        </Box>
      ))}
      {running.length > 0 && (
        <Alert severity="info" square icon={false} role="timer" data-testid="clock" sx={{ py: 0 }}>
          {running.map((clock) => (
            <span key={clock.point}>
              {sentence(clock.name)} {clock.proven ? "is" : "may be"} without power: {said(left(clock))} left of{" "}
              {clock.minutes} min. {doubtOf(clock, left(clock))}{" "}
            </span>
          ))}
        </Alert>
      )}
    </>
  );
}

/** Why the time of a clock cannot be trusted; nothing where it can. */
function doubtOf(clock: DarkClock, left: number): string {
  if (clock.doubt != null) return clock.doubt;
  if (left > clock.minutes * 60 + APART_S)
    return "By the clock this has not gone off yet, so the clock was set. Go by a watch.";
  if (wasSetBack()) return "The clock was set back while this page was open. Go by a watch.";
  if (left < -DAY_S)
    return "By the clock this was up a day ago or more. If that is not so, the clock was set. Go by a watch.";
  return "";
}

const APART_S = 120;
const DAY_S = 24 * 60 * 60;

/** On a phone it does not stay in sight by itself: it would cover the answers. */
const show = (alarm: HTMLElement | null) => alarm?.scrollIntoView({ block: "nearest" });

/** `12:05`. */
const said = (seconds: number): string => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
