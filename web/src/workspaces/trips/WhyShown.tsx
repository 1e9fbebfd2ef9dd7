import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { TroubleWhy } from "../../api/client";
import { useTroubleWhy } from "../../api/troubleWhy";
import { tone } from "../../app/theme";
import { Loaded } from "../../parts/Loaded";

const shown = (percent: number | undefined) => (percent === undefined || percent === 0 ? "< 1" : String(percent));

/** Line by line: what was told or seen, and how likely each cause was after it, for somebody who doubts. */
export function WhyShown({ home, trouble }: { home: string; trouble: string }) {
  const why = useTroubleWhy(home, trouble);
  return (
    <Loaded query={why} what="chances">
      {(data: TroubleWhy) => (
        <Box component="ol" data-testid="why" sx={{ listStyle: "none", m: 0, p: 0 }}>
          {data.lines.map((line, n) => (
            <Box component="li" key={`${line.words} ${n}`} sx={{ borderTop: `1px solid ${tone("rule")}`, py: 1 }}>
              <Typography sx={{ fontWeight: 700 }}>{line.words}</Typography>
              <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
                {data.causes.map((cause, at) => {
                  const before = data.lines[n - 1]?.percent[at];
                  const now = line.percent[at];
                  const moved = before !== undefined && before !== now;
                  return (
                    <Typography component="li" key={cause} variant="body2" sx={{ fontWeight: moved ? 700 : 400 }}>
                      {moved ? `${shown(before)} → ${shown(now)}` : shown(now)} %: {cause}
                    </Typography>
                  );
                })}
              </Box>
            </Box>
          ))}
        </Box>
      )}
    </Loaded>
  );
}
