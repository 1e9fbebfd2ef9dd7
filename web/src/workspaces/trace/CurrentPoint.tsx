import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { tone } from "../../app/theme";
import type { Looks, Shown } from "./useLooks";

/** On a phone: the one point to look at, with answers for a gloved thumb. */
export function CurrentPoint({ shown, looks }: { shown: Shown; looks: Looks }) {
  const big = { minHeight: 92, fontSize: "1.6rem", fontWeight: 800 };
  return (
    <Box sx={{ border: `2px solid ${tone("ink")}`, borderRadius: 1, p: 1.5, mb: 1.5 }} data-testid="current-point">
      <Typography variant="h3" component="p">
        {shown.room}
      </Typography>
      <Typography variant="h2" component="p">
        {shown.point.name}
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.25 }}>
        {shown.point.kind}
        {shown.point.volts === 240 && ", 240 V: watch the appliance, no plug-in tester"}
        {shown.point.again && ", dark once: look once more"}
        {shown.point.plugged && ", a tester is plugged in here"}
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.25 }}>
        <Button
          onClick={() => looks.look(shown, "dark")}
          sx={{ ...big, bgcolor: tone("dark"), color: tone("onDark"), border: `2px solid ${tone("soft")}` }}
        >
          DARK
        </Button>
        <Button onClick={() => looks.look(shown, "lit")} sx={{ ...big, bgcolor: tone("lit"), color: tone("onLit") }}>
          LIT
        </Button>
        <Button variant="outlined" onClick={() => looks.skip(shown)} sx={{ gridColumn: "1 / -1", minHeight: 56 }}>
          Skip: not sure, or cannot look
        </Button>
      </Box>
    </Box>
  );
}
