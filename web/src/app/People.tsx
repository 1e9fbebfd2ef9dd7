import Button from "@mui/material/Button";
import { lazy, Suspense, useState } from "react";
import { useSharing } from "../api/queries";

// Loaded when it is first asked for.
const ShareDialog = lazy(async () => ({ default: (await import("../workspaces/share/ShareDialog")).ShareDialog }));

/** Who has joined; opens the way to share. */
export function People({ home }: { home: string }) {
  const [open, setOpen] = useState(false);
  const sharing = useSharing(open);
  const here = sharing.data?.people.filter((p) => p.home === home || p.role === "owner") ?? [];
  const names = here.map((p) => p.name ?? "Owner").join(", ");
  return (
    <>
      <Button
        color="inherit"
        onClick={() => setOpen(true)}
        sx={{ minWidth: 0, px: { xs: 0.5, md: 1.5 } }}
        data-testid="people"
      >
        {names === "" ? (sharing.data?.open ? "Shared" : "Share") : `With ${names}`}
      </Button>
      {open && (
        <Suspense fallback={null}>
          <ShareDialog home={home} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
