import Alert from "@mui/material/Alert";
import LinearProgress from "@mui/material/LinearProgress";
import { lazy, Suspense } from "react";
import { RouterProvider } from "react-router";
import { useMe } from "../api/queries";
import { router } from "./router";

// Loaded by those who come in from the home network.
const ComeInPage = lazy(async () => ({ default: (await import("../workspaces/helper/ComeInPage")).ComeInPage }));
const HelperPage = lazy(async () => ({ default: (await import("../workspaces/helper/HelperPage")).HelperPage }));

/** Who one is decides what is shown: the owner all of it, a helper their next step, anybody else the way in. */
export function Entrance() {
  const me = useMe();
  if (me.data === undefined) {
    if (!me.isError) return <LinearProgress aria-label="Opening Wayfinder" />;
    return (
      <Alert severity="error">
        Wayfinder does not answer. Check that the program still runs, then load this page again.
      </Alert>
    );
  }
  if (me.data.role === "owner") return <RouterProvider router={router} />;
  return (
    <Suspense fallback={<LinearProgress aria-label="Opening Wayfinder" />}>
      {me.data.role === "helper" && me.data.home != null ? (
        <HelperPage home={me.data.home} me={me.data} />
      ) : (
        <ComeInPage />
      )}
    </Suspense>
  );
}
