import "@fontsource-variable/overpass/wght.css";
import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { ProblemError } from "./api/client";
import { keptSince, onKept } from "./api/kept";
import { refresh } from "./api/refresh";
import { outbox } from "./api/outbox";
import { NoticeProvider } from "./app/Notice";
import { Entrance } from "./app/Entrance";
import { theme } from "./app/theme";

const nonce = document.querySelector('meta[name="csp-nonce"]')?.getAttribute("content") ?? "";
const cache = createCache({ key: "wf", nonce });
const client = new QueryClient({
  defaultOptions: {
    // The program may be on this very machine: what the browser thinks of the network says nothing.
    queries: {
      retry: (count, error) => !(error instanceof ProblemError) && count < 3,
      refetchOnWindowFocus: true,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});
onKept(() => {
  // The program answers again: all that was shown in the meantime is asked for anew.
  if (keptSince() === null) void client.invalidateQueries();
});
// Not in an insecure place: at the second door without a certificate there is none, and the page needs the network.
if (import.meta.env.PROD && "serviceWorker" in navigator) {
  // What was asked for before it was there is asked for once more, so that it is kept, too.
  if (navigator.serviceWorker.controller === null) {
    navigator.serviceWorker.addEventListener("controllerchange", () => void client.invalidateQueries(), { once: true });
  }
  window.addEventListener("load", () => {
    navigator.serviceWorker.register("/service-worker.js").catch(() => undefined);
  });
}
outbox.onSent = (home, seq) =>
  void (seq === null ? client.invalidateQueries({ queryKey: ["home", home] }) : refresh(client, home, seq));

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root; this is a bug");
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <ThemeProvider theme={theme} defaultMode="system" noSsr>
        <CssBaseline enableColorScheme />
        <QueryClientProvider client={client}>
          <NoticeProvider>
            <Entrance />
          </NoticeProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
