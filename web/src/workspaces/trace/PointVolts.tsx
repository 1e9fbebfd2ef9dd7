import Typography from "@mui/material/Typography";
import { VoltsEntry } from "./VoltsEntry";
import type { Looks, Shown } from "./useLooks";

/** A meter held to the point: its volts are entered where that was asked for. */
export function PointVolts({ shown, looks }: { shown: Shown; looks: Looks }) {
  if (looks.metering !== shown.point.point) return null;
  return (
    <VoltsEntry
      label={shown.point.volts === 240 ? "Volts, hot to hot" : "Volts, hot to neutral"}
      onEnter={(volts) => looks.readVolts(shown, volts)}
      onLeave={() => looks.meter(null)}
    />
  );
}

/** How a point is looked at that goes on and off by itself, or lives on a battery. */
export function HowToLook({ shown }: { shown: Shown }) {
  if (!shown.point.how) return null;
  return (
    <Typography component="span" variant="body2" sx={{ display: "block", mb: 1 }} data-testid="how-to-look">
      {shown.point.how}
    </Typography>
  );
}

/** A reading between lit and dark, and what to do about it. */
export function Between({ shown }: { shown: Shown }) {
  if (shown.between === null) return null;
  return (
    <Typography
      component="span"
      variant="body2"
      color="error"
      sx={{ display: "block", fontWeight: 700, mb: 1 }}
      data-testid="between"
    >
      {shown.between} V: neither lit nor dark, and not dead. Look with something that loads it: a lamp, a plug-in
      tester.
    </Typography>
  );
}
