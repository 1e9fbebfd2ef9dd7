import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { InspectorSaid, SizeLine, SizeView } from "../../../api/client";
import { tone } from "../../../app/theme";
import { Block } from "../../../parts/Block";
import { fieldsOf } from "../../../parts/form/fieldsOf";
import { FormDialog } from "../../../parts/form/FormDialog";

interface Props {
  view: SizeView;
  said: readonly InspectorSaid[];
  onSaid: (said: InspectorSaid[]) => void;
}

/** Rule by rule what the size comes to, why, and where that stands. */
export function SizeSheet({ view, said, onSaid }: Props) {
  const [open, setOpen] = useState<SizeLine | null>(null);
  const without = (line: SizeLine) => said.filter((one) => one.of !== line.of);
  return (
    <>
      {view.cautions.length > 0 && (
        <Box sx={{ mb: 2 }}>
          <Block title="More than the rule allows" loud>
            {view.cautions.map((caution) => (
              <Typography key={caution}>{caution}</Typography>
            ))}
          </Block>
        </Box>
      )}
      <Box component="dl" data-testid="size-lines" sx={{ m: 0 }}>
        {view.lines.map((line) => (
          <Box
            key={line.of}
            data-of={line.of}
            sx={{
              py: 1,
              borderTop: `1px solid ${tone("rule")}`,
              display: "grid",
              columnGap: 2,
              gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "160px minmax(0, 1fr) auto" },
              alignItems: "start",
            }}
          >
            <Box component="dt" sx={{ color: "text.secondary" }}>
              {line.title}
            </Box>
            <Box component="dd" sx={{ m: 0, minWidth: 0 }}>
              {line.said == null ? (
                <Box sx={{ fontWeight: 700, fontSize: "1.1rem" }}>{line.value}</Box>
              ) : (
                <>
                  <Box sx={{ fontWeight: 700, fontSize: "1.1rem" }}>{line.said.value}, as the inspector says</Box>
                  <Box>{line.said.why}</Box>
                  <Box>By the rule: {line.value}.</Box>
                </>
              )}
              <Typography variant="body2">{line.why}</Typography>
              <Typography variant="body2" color="text.secondary">
                {line.source}
              </Typography>
            </Box>
            {line.of !== "in_its_place" && line.of !== "voltage_drop" && (
              <Box component="dd" sx={{ m: 0 }}>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => setOpen(line)}
                  sx={{ minHeight: 44, ml: -1 }}
                  aria-label={`${line.title}: ${line.said == null ? "The inspector says" : "Change"}`}
                >
                  {line.said == null ? "The inspector says" : "Change"}
                </Button>
              </Box>
            )}
          </Box>
        ))}
      </Box>
      {open !== null && (
        <AsTheInspectorSays
          line={open}
          onSave={(one) => onSaid([...without(open), one])}
          onRule={() => onSaid(without(open))}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

interface Values {
  value: string;
  why: string;
}
const { Text } = fieldsOf<Values>();

const PATTERN: Partial<Record<SizeLine["of"], string>> = {
  breaker: "50",
  wire: "6",
  ground: "8",
  receptacle: "14-50",
};

interface DialogProps {
  line: SizeLine;
  onSave: (said: InspectorSaid) => void;
  onRule: () => void;
  onClose: () => void;
}

/** Another value in place of the rule's, with who said it and why. */
function AsTheInspectorSays({ line, onSave, onRule, onClose }: DialogProps) {
  return (
    <FormDialog
      title={`${line.title}: as the inspector says`}
      keep={`size ${line.of} ${line.value}`}
      recorded={{ value: line.said?.value ?? "", why: line.said?.why ?? "" }}
      onSave={({ value, why }) => {
        onSave({ of: line.of, value, why });
        return Promise.resolve();
      }}
      onClose={onClose}
    >
      <Typography variant="body2" color="text.secondary">
        By the rule: {line.value}.
      </Typography>
      <Text name="value" label="What it is to be" placeholder={PATTERN[line.of] ?? ""} required autoFocus />
      <Text name="why" label="Who says so, when and why" required />
      {line.said != null && (
        <Button
          variant="outlined"
          color="inherit"
          onClick={() => {
            onRule();
            onClose();
          }}
        >
          Back to the rule
        </Button>
      )}
    </FormDialog>
  );
}
