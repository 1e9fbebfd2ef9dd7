import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useTheme } from "@mui/material/styles";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { outbox } from "../api/outbox";
import { NoticeContext, wordsOf } from "./useNotice";

interface Notice {
  /** Counts up, so that each stays for its own time, whatever was shown before it. */
  number: number;
  words: string;
  bad: boolean;
  undo?: (() => void) | undefined;
}

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const wide = useMediaQuery(useTheme().breakpoints.up("md"));
  const count = useRef(0);
  const say = useMemo(
    () => ({
      problem: (error: unknown) => setNotice({ number: ++count.current, words: wordsOf(error), bad: true }),
      done: (words: string, undo?: () => void) => setNotice({ number: ++count.current, words, bad: false, undo }),
    }),
    [],
  );
  useEffect(() => {
    outbox.onOrphan = say.problem;
  }, [say]);
  const close = () => setNotice(null);
  return (
    <NoticeContext value={say}>
      {children}
      <Snackbar
        key={notice?.number}
        open={notice !== null}
        autoHideDuration={notice?.bad ? null : notice?.undo ? 8000 : 4000}
        onClose={(_, reason) => {
          if (reason !== "clickaway") close();
        }}
        anchorOrigin={{ vertical: wide ? "top" : "bottom", horizontal: "center" }}
        // On a phone it lies over the bottom bar alone: the bar on top and the answers stay free.
        sx={wide ? undefined : { left: 0, right: 0, bottom: 0 }}
      >
        <Alert
          severity={notice?.bad ? "error" : "info"}
          variant="outlined"
          onClose={close}
          action={
            notice?.undo && (
              <Button
                color="inherit"
                size="small"
                onClick={() => {
                  notice.undo?.();
                  close();
                }}
              >
                Strike it out
              </Button>
            )
          }
          data-testid="notice"
          sx={{
            bgcolor: "background.paper",
            color: "text.primary",
            maxWidth: wide ? 560 : "none",
            width: wide ? undefined : "100%",
          }}
        >
          {notice?.words}
        </Alert>
      </Snackbar>
    </NoticeContext>
  );
}
