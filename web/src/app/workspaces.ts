/** The workspaces, in the order of the work. Only those that exist. */
export const WORKSPACES = [
  { path: "panel", name: "Panel", key: "p" },
  { path: "house", name: "House", key: "h" },
  { path: "trace", name: "Trace", key: "t" },
  { path: "directory", name: "Directory", key: "d" },
  { path: "practice", name: "Practice", key: "r" },
  { path: "logbook", name: "Logbook", key: "l" },
] as const;
