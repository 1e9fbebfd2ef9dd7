import { createBrowserRouter, redirect } from "react-router";
import { LostPage } from "./LostPage";
import { Shell } from "./Shell";

export const router = createBrowserRouter([
  {
    path: "/",
    ErrorBoundary: LostPage,
    lazy: async () => ({ Component: (await import("../workspaces/homes/HomesPage")).HomesPage }),
  },
  {
    path: "/h/:home",
    Component: Shell,
    ErrorBoundary: LostPage,
    children: [
      { index: true, loader: () => redirect("panel") },
      {
        path: "panel",
        lazy: async () => ({ Component: (await import("../workspaces/panel/PanelPage")).PanelPage }),
      },
      {
        path: "house",
        lazy: async () => ({ Component: (await import("../workspaces/house/HousePage")).HousePage }),
      },
      {
        path: "trace",
        lazy: async () => ({ Component: (await import("../workspaces/trace/TracePage")).TracePage }),
      },
      {
        path: "directory",
        lazy: async () => ({ Component: (await import("../workspaces/directory/DirectoryPage")).DirectoryPage }),
      },
      {
        path: "logbook",
        lazy: async () => ({ Component: (await import("../workspaces/logbook/LogbookPage")).LogbookPage }),
      },
    ],
  },
  { path: "*", Component: LostPage },
]);
