import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import type { ReactNode } from "react";
import { ProblemError, isGone } from "../api/client";
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

/** The address of the server to which the home has gone. */
function movedTo(error: unknown): string | null {
  return error instanceof ProblemError ? (error.problem.moved_to ?? null) : null;
}

/** A query's data, or what stands in its way and what to do. Data once seen stays while it is asked again, unless the home has gone. */
export function Loaded<T>({ query, what, children }: Props<T>) {
  if (query.data !== undefined && !isGone(query.error)) return <>{children(query.data)}</>;
  if (query.error) {
    return (
      <Alert
        severity="error"
        variant="outlined"
        action={
          movedTo(query.error) === null ? (
            <Button color="inherit" onClick={() => void query.refetch()}>
              Try again
            </Button>
          ) : (
            <Button color="inherit" component="a" href={`${movedTo(query.error)}${window.location.pathname}`}>
              Go on there
            </Button>
          )
        }
      >
        {wordsOf(query.error)}
      </Alert>
    );
  }
  return <LinearProgress aria-label={`Reading the ${what}`} />;
}
