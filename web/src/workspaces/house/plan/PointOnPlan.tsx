import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { Fact, Found, HomeOverview, KnownPoint, PointDetails } from "../../../api/client";
import { LISTS } from "../../../api/generated/lists";
import { newId, useRecord } from "../../../api/record";
import { useAct } from "../../../app/useAct";
import { VerdictTag } from "../../../drawing/Tag";
import { breakerOf, placeOfBlade } from "../../../drawing/place";
import { Block } from "../../../parts/Block";
import { EvidenceDialog } from "../../../app/EvidenceDialog";
import { EditPoint } from "../EditPoint";
import { PickPoints } from "./PickPoints";
import { useWish } from "./useWish";

interface Props {
  home: HomeOverview;
  point: KnownPoint;
  found: Found | undefined;
  placed: boolean;
}

/** A point: what feeds it, what goes dark with it, and what can be said of it. */
export function PointOnPlan({ home, point, found, placed }: Props) {
  const act = useAct(home.id);
  const record = useRecord(home.id);
  const wish = useWish(home.id);
  const [evidence, setEvidence] = useState(false);
  const [editing, setEditing] = useState(false);
  const [picking, setPicking] = useState<"switch" | "gfci" | null>(null);
  const room = home.rooms.find((r) => r.id === point.room);
  const breaker = point.known.verdict === "proven" ? breakerOf(home, point.known.breaker) : undefined;
  const view = home.panels.find((p) => p.breakers.some((b) => b.breaker === breaker?.breaker));
  const details: PointDetails = { ...LISTS.plainPoint, ...point.details };
  const describe = (more: Partial<PointDetails>): Fact => ({
    kind: "point_placed",
    point: point.id,
    room: point.room,
    point_kind: point.kind,
    name: point.name,
    volts: point.volts,
    configuration: point.configuration ?? null,
    only_one: point.only_one,
    plate: point.plate ?? null,
    details: { ...details, ...more },
  });
  const receptacle = point.kind === "receptacle";
  return (
    <Block
      title={
        <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", flexWrap: "wrap" }}>
          <VerdictTag verdict={point.known} home={home} />
          <span>{point.name}</span>
        </Stack>
      }
    >
      <Stack spacing={1.5} data-testid="point-facts">
        <Typography color="text.secondary">
          {room?.name}, {point.kind.replace("_", " ")}
          {point.volts === 240 && ", 240 V: never a plug-in tester or tone sender"}
        </Typography>
        {found && <Typography>{found.feed}</Typography>}
        {found && found.dark_with.length > 0 && (
          <Typography>
            <b>Goes dark with it:</b> {found.dark_with.map((d) => d.name).join("; ")}.
          </Typography>
        )}
        {found && found.may_be_dark > 0 && point.known.verdict === "proven" && (
          <Typography variant="body2" color="text.secondary">
            {found.may_be_dark} points are not proven and may be on it, too.
          </Typography>
        )}
        <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap" }}>
          {breaker && view && (
            <Button
              variant="outlined"
              component={Link}
              to={`/h/${home.id}/panel/${view.panel.id}?at=${encodeURIComponent(placeOfBlade(breaker))}`}
            >
              Go to breaker {breaker.tag}
            </Button>
          )}
          <Button variant="outlined" onClick={() => setEvidence(true)}>
            Why
          </Button>
          <Button variant="outlined" component={Link} to={`/h/${home.id}/trips?point=${point.id}`}>
            It does not work
          </Button>
          <Button variant="outlined" onClick={() => setEditing(!editing)} aria-expanded={editing}>
            Edit
          </Button>
        </Stack>
        {editing && (
          <Stack component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            <EditPoint
              key={JSON.stringify(point)}
              home={home.id}
              point={point}
              onSave={(fact) => record([fact])}
              onRemove={() => void act([{ kind: "point_removed", point: point.id }], `${point.name} is gone`)}
            />
            {receptacle && (
              <Stack component="li">
                {(
                  [
                    ["gfci", "It has a GFCI with its own buttons"],
                    ["outdoor", "Outdoors or in the wet"],
                    ["weather_resistant", "Marked weather-resistant (WR)"],
                    ["tamper_resistant", "Marked tamper-resistant (TR)"],
                  ] as const
                ).map(([what, words]) => (
                  <FormControlLabel
                    key={what}
                    label={words}
                    control={
                      <Checkbox
                        checked={details[what]}
                        onChange={(e) => void act([describe({ [what]: e.target.checked })], "Kept")}
                      />
                    }
                  />
                ))}
                {point.volts === 120 && details.half_of == null && details.outlets === "duplex" && (
                  <Button
                    variant="outlined"
                    onClick={() => void wish({ wish: "split_receptacle", point: point.id, other: newId() })}
                  >
                    Its halves differ: split it
                  </Button>
                )}
              </Stack>
            )}
            {placed && (
              <Button
                component="li"
                color="inherit"
                onClick={() => void act([{ kind: "point_stands", point: point.id, at: null }], "Off the plan")}
              >
                Take off the plan, keep the point
              </Button>
            )}
          </Stack>
        )}
        {point.kind === "switch" && (
          <Button variant="outlined" onClick={() => setPicking("switch")}>
            What it switches
          </Button>
        )}
        {receptacle && details.gfci && (
          <Button variant="outlined" onClick={() => setPicking("gfci")}>
            What it protects downstream
          </Button>
        )}
      </Stack>
      {evidence && <EvidenceDialog home={home} point={point.id} onClose={() => setEvidence(false)} />}
      {picking && <PickPoints home={home} from={point} which={picking} onClose={() => setPicking(null)} />}
    </Block>
  );
}
