import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { answer, api, type MovedInList } from "../../api/client";
import { useNotice } from "../../app/useNotice";

/** Homes that are used at another server now. Here they are kept as they were when they went. */
export function MovedHomes({ homes }: { homes: readonly MovedInList[] }) {
  const client = useQueryClient();
  const say = useNotice();
  const remove = (home: MovedInList) => {
    answer(api.DELETE("/api/homes/{home}", { params: { path: { home: home.id } } })).then(() => {
      void client.invalidateQueries({ queryKey: ["homes"] });
      say.done(`The copy of ${home.name} here is deleted; for 30 days it can be taken back.`);
    }, say.problem);
  };
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1 }} data-testid="moved">
      {homes.map((home) => (
        <Box component="li" key={home.id} sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
          <Typography sx={{ flex: 1, minWidth: 180, overflowWrap: "anywhere" }}>
            <b>{home.name}</b> has moved to {home.to}. What is kept here is how it was when it went.
          </Typography>
          <Button
            variant="outlined"
            component="a"
            href={`${home.to}/h/${home.id}/overview`}
            aria-label={`Open it there: ${home.name}`}
          >
            Open it there
          </Button>
          <Button color="inherit" aria-label={`Delete it here: ${home.name}`} onClick={() => remove(home)}>
            Delete it here
          </Button>
        </Box>
      ))}
    </Box>
  );
}
