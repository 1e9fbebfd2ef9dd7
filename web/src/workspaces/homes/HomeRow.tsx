import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type HomeInList } from "../../api/client";
import { tone } from "../../app/theme";
import { useNotice } from "../../app/useNotice";
import { dateOf } from "../../parts/when";
import { CopyHome, DeleteHome, RenameHome } from "./HomeDialogs";

type Doing = "rename" | "copy" | "delete";

/** A home in the list: the worst that is known of it, and what can be done with it as a whole. */
export function HomeRow({ home }: { home: HomeInList }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [doing, setDoing] = useState<Doing | null>(null);
  const client = useQueryClient();
  const say = useNotice();
  const close = () => setDoing(null);
  const choose = (what: Doing) => {
    setAnchor(null);
    setDoing(what);
  };
  const archive = (archived: boolean) => {
    setAnchor(null);
    answer(api.PUT("/api/homes/{home}/archived", { params: { path: { home: home.id } }, body: { archived } })).then(
      () => {
        void client.invalidateQueries({ queryKey: ["homes"] });
        say.done(archived ? `${home.name} is in the archive.` : `${home.name} is out of the archive.`);
      },
      say.problem,
    );
  };
  const { worst } = home;
  const grave = worst?.about === "stop" || worst?.about === "danger";
  return (
    <Box
      component="li"
      data-home={home.id}
      sx={{
        display: "flex",
        alignItems: "stretch",
        bgcolor: "background.paper",
        border: `1px solid ${tone("rule")}`,
        borderLeft: `6px solid ${grave ? tone("danger") : tone("pine")}`,
        "&:hover": { borderLeftColor: grave ? tone("danger") : tone("blaze") },
      }}
    >
      <Box
        component={Link}
        to={`/h/${home.id}`}
        sx={{ flex: 1, minWidth: 0, color: "inherit", textDecoration: "none", p: 2, overflowWrap: "anywhere" }}
      >
        <Typography variant="h2" component="span">
          {home.name}
        </Typography>
        {worst && (
          <Typography sx={{ my: 0.5 }}>
            <Typography component="span" color={grave ? "error" : "text.secondary"} sx={{ fontWeight: 700 }}>
              {worst.margin}:
            </Typography>{" "}
            {worst.title}
          </Typography>
        )}
        <Typography variant="body2" color="text.secondary">
          {home.panels.length === 0 ? "no panel yet" : home.panels.join("; ")} · {home.progress.proven} of{" "}
          {home.progress.points} points proven
          {home.written != null && ` · last written ${dateOf(home.written)}`}
        </Typography>
      </Box>
      <Button
        color="inherit"
        aria-label={`More for ${home.name}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ minWidth: 64 }}
      >
        More
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => choose("rename")}>Rename</MenuItem>
        <MenuItem onClick={() => choose("copy")}>Copy</MenuItem>
        <MenuItem onClick={() => archive(!home.archived)}>
          {home.archived ? "Take out of the archive" : "Put into the archive"}
        </MenuItem>
        <MenuItem onClick={() => choose("delete")}>Delete</MenuItem>
      </Menu>
      {doing === "rename" && <RenameHome home={home} onClose={close} />}
      {doing === "copy" && <CopyHome home={home} onClose={close} />}
      {doing === "delete" && <DeleteHome home={home} onClose={close} />}
    </Box>
  );
}
