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
      { index: true, loader: () => redirect("overview") },
      {
        path: "overview",
        handle: "Overview",
        lazy: async () => ({ Component: (await import("../workspaces/overview/OverviewPage")).OverviewPage }),
      },
      {
        path: "panel/:panel?",
        handle: "Panel",
        lazy: async () => ({ Component: (await import("../workspaces/panel/PanelPage")).PanelPage }),
      },
      {
        path: "checks",
        handle: "Checks",
        lazy: async () => ({ Component: (await import("../workspaces/panel/ChecksPage")).ChecksPage }),
      },
      {
        path: "house",
        handle: "House plan",
        lazy: async () => ({ Component: (await import("../workspaces/house/plan/PlanPage")).PlanPage }),
      },
      {
        path: "house/list",
        handle: "Rooms and points",
        lazy: async () => ({ Component: (await import("../workspaces/house/HousePage")).HousePage }),
      },
      {
        path: "house/walk/:room?",
        handle: "Walk",
        lazy: async () => ({ Component: (await import("../workspaces/house/walk/WalkPage")).WalkPage }),
      },
      {
        path: "trace",
        handle: "Trace",
        lazy: async () => ({ Component: (await import("../workspaces/trace/TracePage")).TracePage }),
      },
      {
        path: "loads",
        handle: "Loads",
        lazy: async () => ({ Component: (await import("../workspaces/loads/LoadsPage")).LoadsPage }),
      },
      {
        path: "loads/circuit/:breaker",
        handle: "One circuit",
        lazy: async () => ({ Component: (await import("../workspaces/loads/CircuitPage")).CircuitPage }),
      },
      {
        path: "loads/service",
        handle: "Service calculation",
        lazy: async () => ({ Component: (await import("../workspaces/loads/ServicePage")).ServicePage }),
      },
      {
        path: "loads/survey",
        handle: "Survey",
        lazy: async () => ({ Component: (await import("../workspaces/loads/SurveyPage")).SurveyPage }),
      },
      {
        path: "loads/usage",
        handle: "Usage data",
        lazy: async () => ({ Component: (await import("../workspaces/loads/UsagePage")).UsagePage }),
      },
      {
        path: "loads/enter/:room?",
        handle: "What is where",
        lazy: async () => ({ Component: (await import("../workspaces/loads/EnterPage")).EnterPage }),
      },
      {
        path: "work",
        handle: "Work",
        lazy: async () => ({ Component: (await import("../workspaces/work/WorkPage")).WorkPage }),
      },
      {
        path: "work/size",
        handle: "Size of a circuit",
        lazy: async () => ({ Component: (await import("../workspaces/work/size/SizePage")).SizePage }),
      },
      {
        path: "work/job/:job",
        handle: "Job sheet",
        lazy: async () => ({ Component: (await import("../workspaces/work/JobPage")).JobPage }),
      },
      {
        path: "trips",
        handle: "Trips",
        lazy: async () => ({ Component: (await import("../workspaces/trips/TripsPage")).TripsPage }),
      },
      {
        path: "trips/:trouble",
        handle: "Not working",
        lazy: async () => ({ Component: (await import("../workspaces/trips/TroublePage")).TroublePage }),
      },
      {
        path: "practice",
        handle: "Practice",
        lazy: async () => ({ Component: (await import("../workspaces/practice/PracticePage")).PracticePage }),
      },
      {
        path: "practice/panel",
        handle: "Know your panel",
        lazy: async () => ({ Component: (await import("../workspaces/practice/KnowPanelPage")).KnowPanelPage }),
      },
      {
        path: "book",
        handle: "Home book",
        lazy: async () => ({ Component: (await import("../workspaces/directory/BookPage")).BookPage }),
      },
      {
        path: "tests",
        handle: "Tests",
        lazy: async () => ({ Component: (await import("../workspaces/directory/TestsPage")).TestsPage }),
      },
      {
        path: "stickers",
        handle: "Stickers",
        lazy: async () => ({ Component: (await import("../workspaces/directory/StickersPage")).StickersPage }),
      },
      {
        path: "directory/:panel?",
        handle: "Directory",
        lazy: async () => ({ Component: (await import("../workspaces/directory/DirectoryPage")).DirectoryPage }),
      },
      {
        path: "more",
        handle: "More",
        lazy: async () => ({ Component: (await import("./MorePage")).MorePage }),
      },
      {
        path: "logbook",
        handle: "Logbook",
        lazy: async () => ({ Component: (await import("../workspaces/logbook/LogbookPage")).LogbookPage }),
      },
    ],
  },
  { path: "*", Component: LostPage },
]);
