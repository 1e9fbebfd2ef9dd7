import Button from "@mui/material/Button";
import type { HomeOverview } from "../api/client";
import { useBeginJob } from "./useBeginJob";

const WORK = { receptacle: "receptacle", light: "light", switch: "switch" } as const;

/** Work at a point that is proven: its job sheet. */
export function PointWork({ home, point }: { home: HomeOverview; point: string }) {
  const begin = useBeginJob(home.id);
  const known = home.points.find((one) => one.id === point);
  const kind = known?.kind;
  const work = kind !== undefined && kind in WORK ? WORK[kind as keyof typeof WORK] : undefined;
  if (known === undefined || work === undefined || known.known.verdict !== "proven") return null;
  return (
    <Button color="inherit" onClick={() => void begin({ job: "point", point, work })}>
      Replace this {work}, step by step
    </Button>
  );
}
