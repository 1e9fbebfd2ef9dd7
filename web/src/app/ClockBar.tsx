import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import type { HomeOverview } from "../api/client";
import { bladeOf } from "../drawing/place";
import { Alarm } from "../parts/Alarm";
import { sentence } from "../parts/words";
import { useAct } from "./useAct";
import { useClocks, type DarkClock } from "./useClocks";

/** What may be without power only so long: how long is left, on every screen; and what to switch on when it has run out. */
export function ClockBar({ home }: { home: HomeOverview }) {
  const act = useAct(home.id);
  const { running, over, due, left } = useClocks(home);
  const numbers = due.map((id) => bladeOf(home, id)?.tag ?? "?").join(", ");
  const switchOn = () =>
    void act(
      due.map((breaker) => ({ kind: "breaker_switched", breaker, to: "on" })),
      due.length === 1 ? `${numbers} is on again` : `${numbers} are on again`,
    );
  return (
    <>
      {over.length > 0 && (
        <Alarm
          square
          data-testid="clock-over"
          sx={{ position: "sticky", top: 56, zIndex: 19, alignItems: "center" }}
          action={
            <Button
              variant="contained"
              sx={{ bgcolor: "#fff", color: "#1d2a2e", "&:hover": { bgcolor: "#eee" } }}
              onClick={switchOn}
            >
              {due.length === 1 ? "Done, it is on" : "Done, all are on"}
            </Button>
          }
        >
          <b>Turn {numbers} ON again now.</b> {over.map((clock) => toldOver(clock, left(clock))).join(" ")} See that it
          runs; if the breaker does not stay on, leave it off and call an electrician.
        </Alarm>
      )}
      {running.length > 0 && (
        <Alert severity="info" square icon={false} role="timer" data-testid="clock" sx={{ py: 0 }}>
          {running.map((clock) => (
            <span key={clock.point}>
              {sentence(clock.name)} {clock.proven ? "is" : "may be"} without power: {said(left(clock))} left of{" "}
              {clock.minutes} min.{" "}
            </span>
          ))}
        </Alert>
      )}
    </>
  );
}

const toldOver = (clock: DarkClock, left: number): string => {
  const how = clock.proven ? "has been" : "may have been";
  return left > 0
    ? `${sentence(clock.name)} may be without power for ${clock.minutes} min; ${said(left)} left.`
    : `${sentence(clock.name)} ${how} without power for more than ${clock.minutes} min.`;
};

/** `12:05`. */
const said = (seconds: number): string => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
