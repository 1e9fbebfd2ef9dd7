import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { answer, api, type DeletedHome } from "../../api/client";
import { useNotice } from "../../app/useNotice";
import { dateOf } from "../../parts/when";

/** What was deleted and can still be taken back. */
export function DeletedHomes({ homes }: { homes: readonly DeletedHome[] }) {
  const client = useQueryClient();
  const say = useNotice();
  const takeBack = (home: DeletedHome) => {
    answer(api.POST("/api/homes/{home}/take-back", { params: { path: { home: home.id } } })).then(() => {
      void client.invalidateQueries();
      say.done(`${home.name} is back, with every line it had.`);
    }, say.problem);
  };
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1 }} data-testid="deleted">
      {homes.map((home) => (
        <Box component="li" key={home.id} sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
          <Typography sx={{ flex: 1, minWidth: 180, overflowWrap: "anywhere" }}>
            <b>{home.name}</b>, deleted {dateOf(home.deleted)}, kept until {dateOf(home.until)}
          </Typography>
          <Button variant="outlined" aria-label={`Take back ${home.name}`} onClick={() => takeBack(home)}>
            Take back
          </Button>
        </Box>
      ))}
    </Box>
  );
}
