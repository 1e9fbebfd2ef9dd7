/**
 * The workspaces, in the order of the rail. Only those that exist. `bar`: in the bottom bar of a phone; the others are on its page
 * "More".
 */
export const WORKSPACES = [
  { path: "overview", name: "Overview", key: "v", bar: true },
  { path: "panel", name: "Panel", key: "p", bar: true },
  { path: "house", name: "House", key: "h", bar: false },
  { path: "trace", name: "Trace", key: "t", bar: true },
  { path: "loads", name: "Loads", key: "o", bar: false },
  { path: "work", name: "Work", key: "w", bar: false },
  { path: "directory", name: "Directory", key: "d", bar: false },
  { path: "trips", name: "Trips", key: "i", bar: true },
  { path: "practice", name: "Practice", key: "r", bar: false },
  { path: "logbook", name: "Logbook", key: "l", bar: false },
] as const;
