import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import type { Job, PanelView, WayLine } from "../../api/client";
import { tone } from "../../app/theme";
import { SmallPost } from "../../drawing/SmallPost";
import { hidden } from "../../parts/hidden";
import { changed } from "./changed";
import { ToReadList } from "./ToReadList";

interface Props {
  home: string;
  way: WayLine;
  number: number;
  now: PanelView;
  /** How money is written. */
  currency: string;
  pinned: boolean;
  /** Nothing where there is no other way to compare with. */
  onPin: (() => void) | null;
  onRuleOut: (breaker: string) => void;
  onJob: (job: Job) => void;
  /** Searches for another wish. */
  onWish: (wish: string) => void;
}

/** One way: the panel now and after, what it takes, what it risks, what is to be read first. */
export function WayColumn({ home, way, number, now, currency, pinned, onPin, onRuleOut, onJob, onWish }: Props) {
  const after = way.after;
  const marks = after == null ? null : changed(now, after);
  const sure = way.stands === "sure";
  return (
    <Box
      component="section"
      aria-label={`Way ${number}: ${way.name}`}
      data-way={way.name}
      data-stands={way.stands}
      sx={{ minWidth: 0, px: { md: 2 }, py: 1, borderLeft: { md: `1px solid ${tone("rule")}` } }}
    >
      <Typography variant="h2" sx={{ display: "flex", gap: 1.2, alignItems: "baseline" }}>
        <Box component="span" sx={{ fontSize: "1.7rem" }}>
          {number}
        </Box>
        {way.name}
      </Typography>
      <Typography variant="body2" sx={{ fontWeight: 700, mb: 1 }} color={sure ? undefined : "text.secondary"}>
        {way.steps.length < 2 ? "" : sure ? "Rests on nothing that is not read." : "Only once this is read:"}
      </Typography>
      {!sure && <ToReadList home={home} lines={way.unread} onWish={onWish} />}
      {after != null && marks !== null && (
        <Stack direction="row" spacing={0.5} sx={{ alignItems: "center", my: 1, overflowX: "auto" }}>
          <Post caption="now">
            <SmallPost view={now} moved={marks.gone} label={`Now: ${marks.before || "nothing changes"}`} />
          </Post>
          <Box component="span" aria-hidden sx={{ fontSize: "1.4rem", fontWeight: 700 }}>
            →
          </Box>
          <Post caption="after">
            <SmallPost view={after} moved={marks.moved} fresh={marks.fresh} label={`After: ${marks.after}`} />
          </Post>
        </Stack>
      )}
      <Box component="ol" sx={{ pl: 2.5, my: 1 }}>
        {way.steps.map((step) => (
          <Typography component="li" variant="body2" key={step}>
            {step}
          </Typography>
        ))}
      </Box>
      <Box
        component="dl"
        sx={{ display: "grid", gridTemplateColumns: "88px minmax(0, 1fr)", rowGap: 0.5, m: 0, my: 1 }}
      >
        {way.minutes != null && (
          <Line name="Time">
            <b>{way.minutes} min</b>
            {way.off_minutes != null && `, about ${way.off_minutes} of them with the main off`}
          </Line>
        )}
        {way.parts.length > 0 && (
          <Line name="Parts">
            {way.parts.map((part) => (part.count > 1 ? `${part.count} × ${part.what}` : part.what)).join("; ")}.{" "}
            {way.money == null ? "No prices." : ""}
          </Line>
        )}
        {way.money != null && (
          <Line name="Money">
            <b>
              {currency} {way.money}
            </b>{" "}
            by your price list
          </Line>
        )}
        {way.risks !== "" && (
          <Line name="Risk">
            <span aria-hidden style={{ letterSpacing: 2 }}>
              {"■".repeat(Math.min(10, way.risk))}
            </span>
            <span style={hidden}>{way.risk} marks: </span> {way.risks}
          </Line>
        )}
        {way.legs !== "" && <Line name="Legs after">{way.legs}</Line>}
        {way.within_percent != null && <Line name="Best">within {way.within_percent} % of the best of its kind</Line>}
      </Box>
      {way.touches.length > 0 && (
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mb: 1 }}>
          {way.touches.map((one) => (
            <Button
              key={one.breaker}
              variant="outlined"
              color="inherit"
              size="small"
              onClick={() => onRuleOut(one.breaker)}
            >
              Not {one.number}
            </Button>
          ))}
        </Stack>
      )}
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
        {way.job != null && (
          <Button
            variant={number === 1 && sure ? "contained" : "outlined"}
            data-main={number === 1 && sure ? true : undefined}
            onClick={() => way.job != null && onJob(way.job)}
          >
            Make the job sheet
          </Button>
        )}
        {onPin !== null && (
          <Button color="inherit" aria-pressed={pinned} onClick={onPin}>
            {pinned ? "Unpin" : "Pin"}
          </Button>
        )}
      </Stack>
      {way.no_sheet !== "" && <Typography variant="body2">{way.no_sheet}</Typography>}
    </Box>
  );
}

function Post({ caption, children }: { caption: string; children: ReactNode }) {
  return (
    <Box>
      {children}
      <Typography variant="body2" color="text.secondary" sx={{ textAlign: "center" }}>
        {caption}
      </Typography>
    </Box>
  );
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <Typography component="dt" variant="body2" color="text.secondary">
        {name}
      </Typography>
      <Typography component="dd" variant="body2" sx={{ m: 0 }}>
        {children}
      </Typography>
    </>
  );
}
