import Alert from "@mui/material/Alert";
import Typography from "@mui/material/Typography";
import type { PanelView } from "../api/client";
import { Block } from "./Block";

/** What to mind at the panel, whatever is done there. */
export function PanelCautions({ view }: { view: PanelView }) {
  const fed = view.also_fed;
  return (
    <Block title="Before you touch anything">
      {fed && (
        <Typography
          variant="body2"
          color={fed.live ? "error" : undefined}
          sx={{ mb: 1, fontWeight: fed.live ? 700 : 400 }}
        >
          {fed.words}
        </Typography>
      )}
      <Typography variant="body2">
        Nothing here needs the cover off. Behind it, the line-side lugs stay live even with the main off. A breaker that
        is off is not proof of dead: prove it with a meter that was tested on a live source before and after. Heat, burn
        marks, a smell, water or rust, a breaker that trips again at once, fuses instead of breakers: stop and call an
        electrician. Local codes and licensed practice come first.
      </Typography>
    </Block>
  );
}

/** What to mind with what is off just now, or is to go off. */
export function CautionsNow({ cautions }: { cautions: string[] }) {
  return cautions.map((words) => (
    <Alert key={words} severity="warning" data-testid="caution">
      {words}
    </Alert>
  ));
}

/** What to mind while breakers are switched for a trace. */
export function TraceCautions() {
  return (
    <Typography variant="body2" color="text.secondary">
      Tell everybody before the first breaker goes off. Stand aside when switching and leave the main alone. Big loads
      off first; wait five minutes before a compressor starts again. An old breaker may not latch: if one feels hot,
      buzzes or will not stay on, stop and call an electrician. Dark is not proven dead. Never plug a tone sender into a
      240 V point.
    </Typography>
  );
}
