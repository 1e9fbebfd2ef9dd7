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
        path: "panel/:panel?",
        lazy: async () => ({ Component: (await import("../workspaces/panel/PanelPage")).PanelPage }),
      },
      {
        path: "checks",
        lazy: async () => ({ Component: (await import("../workspaces/panel/ChecksPage")).ChecksPage }),
      },
      {
        path: "house",
        lazy: async () => ({ Component: (await import("../workspaces/house/plan/PlanPage")).PlanPage }),
      },
      {
        path: "house/list",
        lazy: async () => ({ Component: (await import("../workspaces/house/HousePage")).HousePage }),
      },
      {
        path: "house/walk/:room?",
        lazy: async () => ({ Component: (await import("../workspaces/house/walk/WalkPage")).WalkPage }),
      },
      {
        path: "trace",
        lazy: async () => ({ Component: (await import("../workspaces/trace/TracePage")).TracePage }),
      },
      {
        path: "practice",
        lazy: async () => ({ Component: (await import("../workspaces/practice/PracticePage")).PracticePage }),
      },
      {
        path: "directory/:panel?",
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
