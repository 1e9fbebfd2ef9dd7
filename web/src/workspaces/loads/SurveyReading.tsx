import type { SurveyStep } from "../../api/client";
import { ReadWhole } from "./read/ReadCircuit";
import { ReadLoad } from "./read/ReadLoad";

interface Props {
  home: string;
  step: SurveyStep;
  onClose: () => void;
}

/** The form for the reading that the survey asks for. */
export function SurveyReading({ home, step, onClose }: Props) {
  if (step.load != null) {
    const load = {
      load: step.load,
      name: step.names[0]?.split(",")[0] ?? "",
      point: step.point ?? "",
      volts: step.volts ?? 120,
    };
    const how = step.with === "plug_in_meter" ? "plug_in_amps" : "utility_kw";
    return <ReadLoad home={home} load={load} how={how} onClose={onClose} />;
  }
  return (
    <ReadWhole
      home={home}
      number={step.number}
      breaker={step.breaker}
      with={step.with === "clamp" ? "clamp" : "utility_meter"}
      loads={step.running.map((load, at) => [load, step.names[at] ?? ""] as const)}
      onClose={onClose}
    />
  );
}
