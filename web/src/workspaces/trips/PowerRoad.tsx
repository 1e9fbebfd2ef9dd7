import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { RoadStop } from "../../api/client";
import { tone } from "../../app/theme";
import { Tag } from "../../drawing/Tag";

/** The way the power comes, from the utility down to the point: each place with how likely it stops there. */
export function PowerRoad({ road }: { road: readonly RoadStop[] }) {
  const most = Math.max(...road.map((stop) => stop.percent));
  return (
    <Box component="ol" data-testid="road" sx={{ listStyle: "none", m: 0, p: 0 }}>
      {road.map((stop, n) => {
        const likeliest = stop.percent === most && most > 0;
        return (
          <Box
            component="li"
            key={`${stop.kind} ${stop.place}`}
            data-kind={stop.kind}
            data-percent={stop.percent}
            sx={{
              display: "grid",
              gridTemplateColumns: "56px minmax(0, 1fr) auto",
              alignItems: "center",
              columnGap: 1.5,
              minHeight: 64,
              position: "relative",
              // The road itself, behind its places.
              "&::before": {
                content: '""',
                position: "absolute",
                left: 25,
                width: 6,
                top: n === 0 ? "50%" : 0,
                bottom: n === road.length - 1 ? "50%" : 0,
                bgcolor: tone("rule"),
              },
            }}
          >
            <Box sx={{ position: "relative", display: "grid", placeItems: "center" }}>
              {stop.number !== "" ? (
                <Tag text={stop.number} />
              ) : (
                <Knot likeliest={likeliest} end={stop.kind === "itself"} />
              )}
            </Box>
            <Box sx={{ py: 0.5 }}>
              <Typography component="span" sx={{ fontWeight: 700, display: "block" }}>
                {stop.place}
              </Typography>
              <Typography component="span" variant="body2" color="text.secondary">
                {stop.what}
              </Typography>
            </Box>
            <Typography
              component="span"
              sx={{ fontFamily: "Overpass Variable", fontWeight: 700, fontSize: likeliest ? "2rem" : "1.1rem" }}
            >
              {stop.percent === 0 ? "< 1 %" : `${stop.percent} %`}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}

function Knot({ likeliest, end }: { likeliest: boolean; end: boolean }) {
  const size = likeliest ? 34 : 18;
  return (
    <Box
      aria-hidden
      sx={{
        width: size,
        height: size,
        borderRadius: "50%",
        border: `3px solid ${tone("ink")}`,
        bgcolor: likeliest ? tone("ochre") : end ? tone("ink") : "background.paper",
        color: "#1d2a2e",
        fontWeight: 700,
        display: "grid",
        placeItems: "center",
      }}
    >
      {likeliest ? "?" : ""}
    </Box>
  );
}
