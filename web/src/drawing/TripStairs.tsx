import Box from "@mui/material/Box";
import type { TripSteps } from "../api/client";
import { tone } from "../app/theme";
import { amps } from "../parts/words";

interface Props {
  steps: TripSteps;
  /** Marked currents with what stands over them. */
  marks: readonly { amps: number; words: string }[];
}

const WIDTH = 358;
const HEIGHT = 150;
const TOP = 26;
const minutes = (count: number): string => (count % 60 === 0 ? `${count / 60} h` : `${count} min`);

/** The latest times by which this breaker must have tripped, as steps. There is no earliest time, so none is drawn. */
export function TripStairs({ steps, marks }: Props) {
  const end = Math.max(steps.amps_200 * 1.2, ...marks.map((mark) => mark.amps * 1.05));
  const x = (value: number) => (value / end) * WIDTH;
  const [holds, at135, at200] = [x(steps.holds), x(steps.amps_135), x(steps.amps_200)];
  const short = 38;
  const long = HEIGHT - 45;
  const words =
    `Holds up to ${amps(steps.holds)} A; may hold up to ${amps(steps.amps_135)} A; from there must have tripped by ` +
    `${minutes(steps.minutes_135)}, from ${amps(steps.amps_200)} A by ${minutes(steps.minutes_200)}.`;
  const text = { fontFamily: "Overpass Variable", fontWeight: 700, fontSize: 13, fill: tone("ink") } as const;
  const shown = marks.map((mark, n) => ({ ...mark, at: Math.min(x(mark.amps), WIDTH - 1), n }));
  return (
    <Box component="figure" sx={{ m: 0 }}>
      <Box
        component="svg"
        role="img"
        aria-label={words}
        viewBox={`0 0 ${WIDTH} ${TOP + HEIGHT + 22}`}
        sx={{ width: "100%" }}
      >
        <defs>
          <pattern id="may-hold" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
            <Box component="rect" width="8" height="8" sx={{ fill: tone("rail") }} />
            <Box component="rect" width="8" height="2" sx={{ fill: tone("rule") }} />
          </pattern>
        </defs>
        <g transform={`translate(0 ${TOP})`}>
          <Box component="rect" x={0} y={0} width={holds} height={HEIGHT} sx={{ fill: tone("card") }} />
          <rect x={holds} y={0} width={WIDTH - holds} height={HEIGHT} fill="url(#may-hold)" />
          <Box component="rect" x={at135} y={0} width={at200 - at135} height={short} sx={{ fill: tone("ink") }} />
          <Box component="rect" x={at200} y={0} width={WIDTH - at200} height={long} sx={{ fill: tone("ink") }} />
          <Box component="text" x={holds / 2} y={HEIGHT / 2} textAnchor="middle" sx={text}>
            holds
          </Box>
          <Box component="text" x={holds + 6} y={HEIGHT - 28} sx={text}>
            may hold
          </Box>
          <Box component="text" x={at135 + 4} y={short + 16} sx={text}>
            by {minutes(steps.minutes_135)}
          </Box>
          <Box component="text" x={WIDTH - 4} y={long + 17} textAnchor="end" sx={text}>
            by {minutes(steps.minutes_200)}
          </Box>
          <Box component="line" x1={holds} x2={holds} y1={0} y2={HEIGHT} sx={{ stroke: tone("ink"), strokeWidth: 3 }} />
          <Box
            component="line"
            x1={0}
            x2={WIDTH}
            y1={HEIGHT}
            y2={HEIGHT}
            sx={{ stroke: tone("ink"), strokeWidth: 2 }}
          />
          {shown.map((mark) => (
            <g key={mark.words}>
              <Box
                component="line"
                x1={mark.at}
                x2={mark.at}
                y1={-4}
                y2={HEIGHT}
                sx={{ stroke: tone("blaze"), strokeWidth: 3, strokeDasharray: mark.n === 0 ? "none" : "5 4" }}
              />
              <Box
                component="text"
                x={mark.at}
                y={-10}
                textAnchor={mark.at > WIDTH * 0.66 ? "end" : mark.at < WIDTH * 0.3 ? "start" : "middle"}
                sx={{ ...text, fill: tone("blaze") }}
              >
                {mark.words}
              </Box>
            </g>
          ))}
          {(
            [
              [holds, `${amps(steps.holds)} A`],
              [at135, "135 %"],
              [at200, "200 %"],
            ] as const
          ).map(([at, words]) => (
            <Box
              key={words}
              component="text"
              x={at}
              y={HEIGHT + 17}
              textAnchor="middle"
              sx={{ fontSize: 12, fill: tone("soft") }}
            >
              {words}
            </Box>
          ))}
        </g>
      </Box>
      <Box component="figcaption" sx={{ fontSize: "0.85rem", color: "text.secondary" }}>
        Latest times of a new breaker in open air at 40 °C (UL 489, from memory). There is no earliest time; a hot panel
        trips sooner.
      </Box>
    </Box>
  );
}
