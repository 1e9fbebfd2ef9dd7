import Alert from "@mui/material/Alert";
import Snackbar from "@mui/material/Snackbar";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import { outbox } from "../api/outbox";
import { NoticeContext, wordsOf } from "./useNotice";

interface Notice {
  words: string;
  bad: boolean;
}

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const say = useMemo(
    () => ({
      problem: (error: unknown) => setNotice({ words: wordsOf(error), bad: true }),
      done: (words: string) => setNotice({ words, bad: false }),
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
        open={notice !== null}
        autoHideDuration={notice?.bad ? null : 4000}
        onClose={(_, reason) => {
          if (reason !== "clickaway") close();
        }}
        anchorOrigin={{ vertical: "top", horizontal: "center" }}
      >
        <Alert
          severity={notice?.bad ? "error" : "info"}
          variant="outlined"
          onClose={close}
          data-testid="notice"
          sx={{ bgcolor: "background.paper", color: "text.primary", maxWidth: 560 }}
        >
          {notice?.words}
        </Alert>
      </Snackbar>
    </NoticeContext>
  );
}
