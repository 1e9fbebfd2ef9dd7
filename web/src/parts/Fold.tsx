import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Collapse from "@mui/material/Collapse";
import { useId, useState, type ReactNode } from "react";

interface Props {
  /** What is behind it, as on a button. */
  label: string;
  /** In the color of the text: on the page itself the accent is too pale to be read. */
  onPage?: boolean;
  /** Open from the start. */
  open?: boolean;
  children: ReactNode;
}

/** What is seldom needed, behind a button. */
export function Fold({ label, onPage = false, open = false, children }: Props) {
  const [shown, setShown] = useState(open);
  const id = useId();
  return (
    <Box>
      <Button
        size="small"
        color={onPage ? "inherit" : "primary"}
        aria-expanded={shown}
        aria-controls={id}
        onClick={() => setShown(!shown)}
        sx={{ alignSelf: "start" }}
      >
        {shown ? `Less of ${label}` : `More: ${label}`}
      </Button>
      <Collapse in={shown} id={id} unmountOnExit>
        <Box sx={{ display: "grid", gap: 2, pt: 1.5 }}>{children}</Box>
      </Collapse>
    </Box>
  );
}
