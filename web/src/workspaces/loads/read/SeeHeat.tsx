import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { CircuitLoads, Fact } from "../../../api/client";
import { putPhoto } from "../../../api/queries";
import { newId, useRecord } from "../../../api/record";
import { useThisHome } from "../../../app/useThisHome";
import { FileButton } from "../../../parts/form/FileButton";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";
import { numberOrNull } from "../../../parts/yesNo";

type Degrees = "f" | "c";
type Values = { degrees: Degrees; hottest: string; like: string; amps: string };
const { Amount, One } = fieldsOf<Values>();
const DEGREES: readonly (readonly [Degrees, string])[] = [
  ["f", "degrees Fahrenheit"],
  ["c", "degrees Celsius"],
];

/** Whether this device's region reads degrees Fahrenheit. */
const inFahrenheit = (): boolean => new Intl.Locale(navigator.language).maximize().region === "US";

const celsius = (text: string, degrees: Degrees): number =>
  degrees === "f" ? Math.round(((Number(text) - 32) / 1.8) * 100) / 100 : Number(text);

interface Props {
  home: string;
  circuit: CircuitLoads;
  /** The loads that are ticked as running. */
  running: readonly string[];
  onClose: () => void;
}

/** A thermal picture of a breaker, beside a like one. */
export function SeeHeat({ home, circuit, running, onClose }: Props) {
  const record = useRecord(home);
  const { panels } = useThisHome();
  // A picture keeps its id for every try, so that a refused form leaves no second copy.
  const [picture, setPicture] = useState<{ id: string; file: File } | null>(null);
  const panel = panels.find((view) => view.breakers.some((one) => one.breaker === circuit.breaker));
  const save = async (values: Values) => {
    const facts: Fact[] = [];
    const photo = picture !== null && panel !== undefined ? picture.id : null;
    if (photo !== null && picture !== null && panel !== undefined) {
      await putPhoto(home, photo, picture.file);
      facts.push({ kind: "photo_taken", photo, panel: panel.panel.id, of: "heat", breaker: circuit.breaker });
    }
    facts.push({
      kind: "heat_seen",
      breaker: circuit.breaker,
      heat: {
        hottest_c: celsius(values.hottest, values.degrees),
        like_c: celsius(values.like, values.degrees),
        amps: numberOrNull(values.amps),
      },
      running: [...running],
      photo,
    });
    return record(facts);
  };
  return (
    <FormDialog
      title={`A thermal picture of ${circuit.number}`}
      keep={`heat ${home} ${circuit.breaker}`}
      recorded={{ degrees: inFahrenheit() ? "f" : "c", hottest: "", like: "", amps: "" }}
      onSave={save}
      onClose={onClose}
    >
      {({ degrees }) => (
        <>
          <Alert severity="warning" variant="outlined">
            Take it with the cover on. With the cover off it is live work, for qualified people only. Bare shining metal
            shows far colder than it is: read tape, plastic or insulation beside it.
          </Alert>
          <Typography variant="body2" color="text.secondary">
            Under load for half an hour or more; beside it a like breaker that carries about as much. What is ticked as
            running is written down with it.
          </Typography>
          <One name="degrees" label="The camera shows" options={DEGREES} />
          <Amount name="hottest" label="Its hottest place" unit={degrees === "f" ? "°F" : "°C"} required autoFocus />
          <Amount name="like" label="A like breaker beside it" unit={degrees === "f" ? "°F" : "°C"} required />
          <Amount name="amps" label="What flows meanwhile, where it was read" unit="A" />
          <Box sx={{ gridColumn: "1 / -1", display: "flex", gap: 1.5, alignItems: "center" }}>
            <FileButton
              words="The picture"
              label="The thermal picture"
              accept="image/*"
              onFile={(file) => setPicture({ id: newId(), file })}
            />
            {picture !== null && <Typography variant="body2">{picture.file.name}</Typography>}
          </Box>
        </>
      )}
    </FormDialog>
  );
}
