import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { tone } from "../../app/theme";
import { LastLook } from "./LastLook";
import { Between, HowToLook, PointVolts } from "./PointVolts";
import type { Looks, Shown } from "./useLooks";

interface Props {
  shown: Shown;
  looks: Looks;
  /** A radio there is listened to from the panel. */
  listening?: boolean;
}

/** On a phone: the one point to look at, with answers for a gloved thumb. */
export function CurrentPoint({ shown, looks, listening = false }: Props) {
  const metering = looks.metering === shown.point.point;
  const big = { minHeight: 92, fontSize: "1.6rem", fontWeight: 800 };
  return (
    <Box sx={{ border: `2px solid ${tone("ink")}`, borderRadius: 1, p: 1.5, mb: 1.5 }} data-testid="current-point">
      <Typography variant="h3" component="p">
        {shown.room}
      </Typography>
      <Typography variant="h2" component="p" sx={{ fontSize: "1.5rem", lineHeight: 1.2 }}>
        {shown.point.name}
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.25 }}>
        {shown.point.kind}
        {shown.point.volts === 240 && ", 240 V: watch the appliance, no plug-in tester"}
        {shown.point.again && !shown.point.anew && ", look once more"}
        {shown.point.anew && ", find it anew by its place and name"}
        {shown.point.plugged && ", a tester is plugged in here"}
      </Typography>
      <HowToLook shown={shown} looks={looks} />
      <Between shown={shown} />
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.25 }}>
        <Button
          onClick={() => looks.look(shown, "dark")}
          sx={{ ...big, bgcolor: tone("dark"), color: tone("onDark"), border: `2px solid ${tone("soft")}` }}
        >
          {listening ? "SILENT" : "DARK"}
        </Button>
        <Button onClick={() => looks.look(shown, "lit")} sx={{ ...big, bgcolor: tone("lit"), color: tone("onLit") }}>
          {listening ? "PLAYS" : "LIT"}
        </Button>
        <Button variant="outlined" onClick={() => looks.skip(shown)} sx={{ minHeight: 56 }}>
          Skip: not sure
        </Button>
        <Button
          variant="outlined"
          aria-expanded={metering}
          onClick={() => looks.meter(metering ? null : shown.point.point)}
          sx={{ minHeight: 56 }}
        >
          Meter volts
        </Button>
      </Box>
      <PointVolts shown={shown} looks={looks} />
      <LastLook looks={looks} />
    </Box>
  );
}
