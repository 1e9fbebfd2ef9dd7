import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
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
export function HowToLook({ shown, looks }: { shown: Shown; looks: Looks }) {
  const { how, test_button: testButton = [] } = shown.point;
  return (
    <>
      {how && (
        <Typography component="span" variant="body2" sx={{ display: "block", mb: 1 }} data-testid="how-to-look">
          {how}
        </Typography>
      )}
      {testButton.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, mb: 1 }}>
          <Typography component="span" variant="body2">
            Has it a test button?
          </Typography>
          <Button size="small" variant="outlined" onClick={() => looks.act(testButton)}>
            Yes, it is a GFCI
          </Button>
        </Box>
      )}
    </>
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
