import Alert, { type AlertProps } from "@mui/material/Alert";
import { styled } from "@mui/material/styles";

/** What comes before everything else. The same red in light and in dark. */
export const Alarm = styled((props: AlertProps) => <Alert severity="error" variant="filled" icon={false} {...props} />)(
  {
    backgroundColor: "#a8201a",
    color: "#fff",
    // The usual button would be orange on red.
    "& .MuiButton-contained, & .MuiButton-contained:hover": { backgroundColor: "#fff", color: "#1d2a2e" },
    "& :focus-visible": { outlineColor: "#fff" },
  },
);
