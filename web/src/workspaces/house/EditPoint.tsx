import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import type { Fact, KnownPoint } from "../../api/client";
import { LISTS } from "../../api/generated/lists";
import { AskFirst } from "../../parts/AskFirst";
import { fieldsOf } from "../../parts/form/fieldsOf";
import { KeptFormBody } from "../../parts/form/KeptFormBody";
import { useKeptForm } from "../../parts/form/useKeptForm";
import { numberOrNull } from "../../parts/yesNo";

type Face = NonNullable<KnownPoint["configuration"]>;
type GoesBy = NonNullable<KnownPoint["details"]["goes_by"]>;

/** A point as its form shows it. */
type Values = {
  name: string;
  face: Face | "";
  only_one: boolean;
  minimum: string;
  maximum: string;
  dark: string;
  goes_by: GoesBy | "";
  gfci: boolean;
};
const { Text, Amount, One, Tick } = fieldsOf<Values>();

interface Props {
  home: string;
  point: KnownPoint;
  onSave: (fact: Fact) => Promise<unknown>;
  onRemove: () => void;
}

const valuesOf = (point: KnownPoint): Values => ({
  name: point.name,
  face: point.configuration ?? "",
  only_one: point.only_one,
  minimum: point.plate ? String(point.plate.minimum_ampacity) : "",
  maximum: point.plate ? String(point.plate.maximum_breaker) : "",
  dark: point.details.dark_minutes ? String(point.details.dark_minutes) : "",
  goes_by: point.details.goes_by ?? "",
  gfci: point.details.gfci,
});

const factOf = (point: KnownPoint, values: Values): Fact => ({
  kind: "point_placed",
  point: point.id,
  room: point.room,
  point_kind: point.kind,
  name: values.name,
  volts: point.volts,
  configuration: values.face === "" ? null : values.face,
  only_one: values.only_one,
  plate:
    values.minimum !== "" && values.maximum !== ""
      ? { minimum_ampacity: Number(values.minimum), maximum_breaker: Number(values.maximum) }
      : null,
  details: {
    ...point.details,
    dark_minutes: numberOrNull(values.dark),
    goes_by: values.goes_by === "" ? null : values.goes_by,
    gfci: values.gfci,
    // Alone on its circuit is said of a face with one outlet; a duplex counts as two.
    outlets: values.only_one ? "single" : point.details.outlets,
  },
});

/** A point's name, and what was read on it: the face of a receptacle, the plate of an appliance. */
export function EditPoint({ home, point, onSave, onRemove }: Props) {
  const kept = useKeptForm(`point ${home} ${point.id}`, valuesOf(point));
  const goesBy = LISTS.goesBy.find(([kind]) => kind === point.kind)?.[1] ?? [];
  const faces: readonly Face[] = point.volts === 240 ? LISTS.faces240 : LISTS.faces120;
  return (
    <Box component="li" sx={{ py: 1 }}>
      <KeptFormBody kept={kept} onSave={(values) => onSave(factOf(point, values))}>
        {(_, saving, error) => (
          <>
            <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", alignItems: "center" }}>
              <Text name="name" label={point.kind} required />
              {point.kind === "receptacle" && (
                <>
                  <Box sx={{ minWidth: 210, display: "grid" }}>
                    <One
                      name="face"
                      label="Face of the receptacle"
                      options={[["", "not read"], ...faces.map((f) => [f, f] as const)]}
                    />
                  </Box>
                  <Tick name="only_one" label="one outlet only, alone on its circuit" />
                  <Tick name="gfci" label="test button (GFCI)" />
                </>
              )}
              {point.kind === "appliance" && (
                <>
                  <Amount name="minimum" label={`Plate of ${point.name}: minimum`} unit="A" />
                  <Amount name="maximum" label={`Plate of ${point.name}: largest breaker`} unit="A" />
                  <Amount name="dark" label={`${point.name}: without power at most`} unit="min" whole />
                </>
              )}
              {goesBy.length > 0 && (
                <Box sx={{ minWidth: 230, display: "grid" }}>
                  <One
                    name="goes_by"
                    label={point.kind === "alarm" ? "Also fed by" : "Also worked by"}
                    options={[["", "nothing, or not known"], ...goesBy]}
                  />
                </Box>
              )}
              <Button type="submit" variant="outlined" disabled={!kept.changed || saving}>
                Save
              </Button>
              <AskFirst
                words="Remove"
                label={`Remove ${point.name}`}
                question={`Remove ${point.name}? What was seen there stays in the logbook.`}
                onYes={onRemove}
              />
            </Stack>
            {error}
          </>
        )}
      </KeptFormBody>
    </Box>
  );
}
