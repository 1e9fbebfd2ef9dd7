import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { HomeOverview, TraceView } from "../../api/client";
import { useClocks } from "../../app/useClocks";
import { breakersOf } from "../../drawing/place";
import { Tag } from "../../drawing/Tag";
import { Block } from "../../parts/Block";
import { CautionsNow, TraceCautions } from "../../parts/Cautions";
import { StepCardShown } from "../../parts/StepCardShown";
import { stepId } from "../../parts/useNewStep";
import { VoltsEntry } from "./VoltsEntry";
import type { Looks } from "./useLooks";

interface Props {
  home: HomeOverview;
  view: TraceView;
  looks: Looks;
}

/** What the person at the panel does next. */
export function PanelSide({ home, view, looks }: Props) {
  const { over } = useClocks(home);
  const card = view.panel;
  const at = card.meter_at;
  // What may be without power only so long comes first: it is said above.
  const first = over.length > 0 && card.weight !== "alarm";
  return (
    <Stack spacing={2} data-testid="panel-side" data-step={view.next.step} data-seq={view.seq}>
      <CautionsNow cautions={view.cautions} />
      {!first && <StepCardShown key={stepId(card)} card={card} home={home.id} onFacts={looks.act} />}
      {at != null && (
        <Block title="When it is mended">
          <VoltsEntry label="Volts now" onEnter={(volts) => looks.act([{ kind: "volts_read", point: at, volts }])} />
        </Block>
      )}
      <KeptOn home={home} looks={looks} />
      {card.weight !== "alarm" && <TraceCautions />}
    </Stack>
  );
}

function KeptOn({ home, looks }: { home: HomeOverview; looks: Looks }) {
  const kept = breakersOf(home).filter((b) => b.kept === "on");
  if (kept.length === 0) return null;
  return (
    <Block title="Must stay on">
      {kept.map((b) => (
        <Typography key={b.breaker} variant="body2" sx={{ display: "flex", gap: 1, alignItems: "center", mb: 0.5 }}>
          <Tag text={b.tag} /> <span style={{ flex: 1 }}>{b.kept_reason}</span>
          <Button
            size="small"
            color="inherit"
            aria-label={`May be off: ${b.tag}`}
            onClick={() => looks.act([{ kind: "breaker_kept", breaker: b.breaker }])}
          >
            May be off
          </Button>
        </Typography>
      ))}
    </Block>
  );
}
