import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { FedFrom } from "../../api/client";
import { useTrips } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";

/** In which order the points of a circuit follow each other, as far as somebody saw it in an open box: it tells where a joint failed. */
export function OrderOfPoints({ breaker }: { breaker: string }) {
  const home = useThisHome();
  const fed = useTrips(home.id).data?.fed;
  const act = useAct(home.id);
  const points = home.points.filter((p) => p.known.verdict === "proven" && p.known.breaker === breaker);
  if (points.length < 2 || fed === undefined) return null;
  const name = (id: string) => {
    const point = points.find((p) => p.id === id);
    const room = home.rooms.find((one) => one.id === point?.room)?.name ?? "";
    return `${room}, ${point?.name ?? ""}`;
  };
  const from = (id: string) => {
    const known = fed.find((one) => one.point === id)?.from;
    return known === undefined ? "" : known === "panel" ? "panel" : known.point;
  };
  const tell = (point: string, value: string) => {
    const told: FedFrom | null = value === "" ? null : value === "panel" ? "panel" : { point: value };
    void act([{ kind: "point_fed", point, from: told }], "Written down.");
  };
  return (
    <Block title="In which order the points follow">
      <Typography variant="body2" sx={{ mb: 1 }}>
        Only what was seen in an open box, the breaker off and proven dead. From the panel to a point without a gap it
        tells where its power may stop.
      </Typography>
      <Fold label="what comes before each point">
        <Box data-testid="order" sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
          {points.map((p) => (
            <Choice
              key={p.id}
              label={`Before ${name(p.id)}`}
              value={from(p.id)}
              options={[
                ["", "Not known"] as const,
                ["panel", "The panel: it is the first"] as const,
                ...points.filter((other) => other.id !== p.id).map((other) => [other.id, name(other.id)] as const),
              ]}
              onChange={(value) => tell(p.id, value)}
            />
          ))}
        </Box>
      </Fold>
    </Block>
  );
}
