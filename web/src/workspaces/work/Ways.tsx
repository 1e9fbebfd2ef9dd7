import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { WorkView } from "../../api/client";
import { tone } from "../../app/theme";
import { useBeginJob } from "../../app/useBeginJob";
import { WayColumn } from "./WayColumn";

interface Props {
  home: string;
  /** As it was typed. */
  wish: string;
  view: WorkView;
  pinned: string;
  onPin: (way: string) => void;
  onRuleOut: (breakers: readonly string[]) => void;
  onWish: (wish: string, panel: string) => void;
}

/** The ways side by side, and why not the others. */
export function Ways({ home, wish, view, pinned, onPin, onRuleOut, onWish }: Props) {
  const begin = useBeginJob(home);
  const open = view.ways.filter((way) => way.stands !== "no");
  const ways = [...open.filter((way) => way.name === pinned), ...open.filter((way) => way.name !== pinned)];
  const others = view.ways.filter((way) => way.stands === "no");
  const ruledOut = view.ruled_out.map((one) => one.breaker);
  return (
    <>
      <Typography variant="h1" sx={{ mb: 0.5 }} data-testid="work-title">
        {view.title}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {view.panel}: {view.wish}. {view.legs !== "" && `Legs now ${view.legs}. `}
        {view.service}
      </Typography>
      {view.ruled_out.length > 0 && (
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1, alignItems: "center" }}>
          <Typography variant="body2">Not to be touched:</Typography>
          {view.ruled_out.map((one) => (
            <Button
              key={one.breaker}
              variant="outlined"
              color="inherit"
              size="small"
              onClick={() => onRuleOut(ruledOut.filter((id) => id !== one.breaker))}
            >
              {one.number} again
            </Button>
          ))}
        </Stack>
      )}
      {view.elsewhere.length > 0 && (
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", mt: 1, alignItems: "center" }}>
          {view.elsewhere.map((other) => (
            <Stack key={other.panel} direction="row" spacing={1} sx={{ alignItems: "center" }}>
              <Typography variant="body2">{other.words}</Typography>
              <Button variant="outlined" color="inherit" size="small" onClick={() => onWish(wish, other.panel)}>
                Look there
              </Button>
            </Stack>
          ))}
        </Stack>
      )}
      <Box
        sx={{
          mt: 1.5,
          borderTop: `2px solid ${tone("ink")}`,
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: `repeat(${Math.min(3, ways.length)}, minmax(0, 1fr))` },
          "& > :nth-of-type(3n + 1)": { borderLeft: 0, pl: 0 },
        }}
      >
        {ways.map((way, n) => (
          <WayColumn
            key={way.name}
            home={home}
            way={way}
            number={n + 1}
            now={view.now}
            currency={view.currency}
            pinned={way.name === pinned}
            onPin={ways.length > 1 ? () => onPin(way.name === pinned ? "" : way.name) : null}
            onRuleOut={(breaker) => onRuleOut([...ruledOut, breaker])}
            onJob={(job) => void begin(job)}
            onWish={(said) => onWish(said, view.panel_id)}
          />
        ))}
      </Box>
      {others.length > 0 && (
        <Box sx={{ mt: 1.5, pt: 1, borderTop: `2px solid ${tone("ink")}` }}>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            Why not the others
          </Typography>
          <Box
            component="ul"
            sx={{
              listStyle: "none",
              p: 0,
              m: 0,
              display: "grid",
              gap: 1.5,
              gridTemplateColumns: "repeat(auto-fill, minmax(220px, 1fr))",
            }}
          >
            {others.map((way) => (
              <li key={way.name}>
                <Typography variant="h3" component="p">
                  {way.name}
                </Typography>
                <Typography variant="body2" color="text.secondary">
                  {way.why_not}.
                </Typography>
              </li>
            ))}
          </Box>
        </Box>
      )}
      <Box component="ul" sx={{ mt: 2, pl: 2.5, maxWidth: 760 }}>
        {view.cautions.map((one) => (
          <Typography component="li" variant="body2" key={one}>
            {one}
          </Typography>
        ))}
      </Box>
    </>
  );
}
