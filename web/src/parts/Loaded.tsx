import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import type { ReactNode } from "react";
import { wordsOf } from "../app/useNotice";

/** What was asked for: its data once it is there, or what stands in its way. */
export interface Asked<T> {
  data: T | undefined;
  error: unknown;
  refetch: () => unknown;
}

interface Props<T> {
  query: Asked<T>;
  what: string;
  children: (data: T) => ReactNode;
}

/** A query's data, or what stands in its way and what to do. Data once seen stays while it is asked again. */
export function Loaded<T>({ query, what, children }: Props<T>) {
  if (query.data !== undefined) return <>{children(query.data)}</>;
  if (query.error) {
    return (
      <Alert
        severity="error"
        variant="outlined"
        action={
          <Button color="inherit" onClick={() => void query.refetch()}>
            Try again
          </Button>
        }
      >
        {wordsOf(query.error)}
      </Alert>
    );
  }
  return <LinearProgress aria-label={`Reading the ${what}`} />;
}
