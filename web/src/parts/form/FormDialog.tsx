import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useId, type ReactNode } from "react";
import type { FieldValues } from "react-hook-form";
import { KeptFormBody } from "./KeptFormBody";
import { useKeptForm } from "./useKeptForm";

interface Props<T extends FieldValues> {
  title: string;
  /** Under which name what is typed is kept on this device. */
  keep: string;
  /** What is recorded, as the fields show it. */
  recorded: T;
  /** Records it; what it rejects with is shown, and nothing is lost. */
  onSave: (values: T) => Promise<unknown>;
  onClose: () => void;
  save?: string;
  size?: "xs" | "sm" | "md";
  children: ReactNode | ((values: T) => ReactNode);
}

/** A dialog that records: its fields, an error line, Cancel and Save. Closed in any other way it keeps what was typed. */
export function FormDialog<T extends FieldValues>(props: Props<T>) {
  const { title, keep, recorded, onSave, onClose, save = "Save", size = "xs", children } = props;
  const small = useMediaQuery(useTheme().breakpoints.down("md"));
  const id = useId();
  const kept = useKeptForm(keep, recorded);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth={size} fullScreen={small && size === "md"} aria-labelledby={id}>
      <DialogTitle id={id}>{title}</DialogTitle>
      <KeptFormBody kept={kept} onSave={onSave} onSaved={onClose}>
        {(values, saving, error) => (
          <>
            <DialogContent>
              <Box sx={{ display: "grid", gap: 2, pt: 1 }}>
                {typeof children === "function" ? children(values) : children}
              </Box>
            </DialogContent>
            {/* Outside what scrolls: it is seen from every field. */}
            <Box sx={{ px: 3 }}>{error}</Box>
            <DialogActions>
              <Button
                color="inherit"
                onClick={() => {
                  kept.discard();
                  onClose();
                }}
              >
                Cancel
              </Button>
              <Button type="submit" variant="contained" disabled={saving}>
                {save}
              </Button>
            </DialogActions>
          </>
        )}
      </KeptFormBody>
    </Dialog>
  );
}
