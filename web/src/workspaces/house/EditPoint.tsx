import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Fact, KnownPoint } from "../../api/client";
import { LISTS } from "../../api/lists";
import { Choice } from "../../parts/Choice";
import { numberOrNull } from "../../parts/yesNo";

type Face = NonNullable<KnownPoint["configuration"]>;

interface Props {
  point: KnownPoint;
  onKeep: (fact: Fact) => void;
  onRemove: () => void;
}

/** A point's name, and what was read on it: the face of a receptacle, the plate of an appliance. */
export function EditPoint({ point, onKeep, onRemove }: Props) {
  const [name, setName] = useState(point.name);
  const [face, setFace] = useState<Face | "">(point.configuration ?? "");
  const [onlyOne, setOnlyOne] = useState(point.only_one);
  const [minimum, setMinimum] = useState(point.plate ? String(point.plate.minimum_ampacity) : "");
  const [maximum, setMaximum] = useState(point.plate ? String(point.plate.maximum_breaker) : "");
  const [dark, setDark] = useState(point.details.dark_minutes ? String(point.details.dark_minutes) : "");
  const faces: readonly Face[] = point.volts === 240 ? LISTS.faces240 : LISTS.faces120;
  const plate =
    minimum !== "" && maximum !== ""
      ? { minimum_ampacity: numberOrNull(minimum) ?? 0, maximum_breaker: numberOrNull(maximum) ?? 0 }
      : null;
  const changed =
    name !== point.name ||
    face !== (point.configuration ?? "") ||
    onlyOne !== point.only_one ||
    dark !== (point.details.dark_minutes ? String(point.details.dark_minutes) : "") ||
    JSON.stringify(plate) !== JSON.stringify(point.plate ?? null);
  const digits = (text: string) => text.replace(/[^0-9.]/g, "");
  return (
    <Box component="li" sx={{ py: 1 }}>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: "wrap", alignItems: "center" }}>
        <TextField
          label={point.kind}
          size="small"
          value={name}
          onChange={(e) => setName(e.target.value)}
          sx={{ flex: "1 1 200px" }}
        />
        {point.kind === "receptacle" && (
          <>
            <Box sx={{ minWidth: 130 }}>
              <Choice
                label="Face of the receptacle"
                value={face}
                options={[["", "not read"], ...faces.map((f) => [f, f] as const)]}
                onChange={setFace}
              />
            </Box>
            <FormControlLabel
              label="a single one, alone on its circuit"
              control={<Checkbox checked={onlyOne} onChange={(e) => setOnlyOne(e.target.checked)} />}
            />
          </>
        )}
        {point.kind === "appliance" && (
          <>
            <TextField
              label={`Plate of ${point.name}: minimum, A`}
              size="small"
              value={minimum}
              onChange={(e) => setMinimum(digits(e.target.value))}
            />
            <TextField
              label={`Plate of ${point.name}: largest breaker, A`}
              size="small"
              value={maximum}
              onChange={(e) => setMaximum(digits(e.target.value))}
            />
            <TextField
              label="Off at most, min"
              size="small"
              value={dark}
              onChange={(e) => setDark(e.target.value.replace(/[^0-9]/g, ""))}
              slotProps={{ htmlInput: { "aria-label": `${point.name}: without power at most, min` } }}
            />
          </>
        )}
        <Button
          variant="outlined"
          disabled={!changed}
          onClick={() =>
            onKeep({
              kind: "point_placed",
              point: point.id,
              room: point.room,
              point_kind: point.kind,
              name,
              volts: point.volts,
              configuration: face === "" ? null : face,
              only_one: onlyOne,
              plate,
              details: { ...point.details, dark_minutes: numberOrNull(dark) },
            })
          }
        >
          {face === (point.configuration ?? "") && name !== point.name ? "Rename" : "Save"}
        </Button>
        <Button color="error" aria-label={`Remove ${point.name}`} onClick={onRemove}>
          Remove
        </Button>
      </Stack>
    </Box>
  );
}
