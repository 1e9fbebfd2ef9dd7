import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Menu from "@mui/material/Menu";
import Typography from "@mui/material/Typography";
import { useRef, useState, type ChangeEvent } from "react";
import type { PanelView } from "../../api/client";
import { putPhoto } from "../../api/queries";
import { newId } from "../../api/record";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";
import { dateOf } from "../../parts/when";

type Shown = PanelView["photos"][number]["of"];
const SHOWN: [Shown, string][] = [
  ["label", "The label"],
  ["door", "Inside of the door"],
  ["card", "The old card"],
  ["new_card", "The new card in the door"],
  ["panel", "The panel as it hangs"],
];

interface Props {
  home: string;
  view: PanelView;
  /** Photos of this breaker alone. */
  breaker?: string;
  /** Photos of this alone. */
  only?: Shown;
}

/** Photos of the label, the door and the card, or of one breaker, to be read again without going back to the cellar. */
export function PhotoBlock({ home, view, breaker, only }: Props) {
  const act = useAct(home);
  const say = useNotice();
  const input = useRef<HTMLInputElement>(null);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const [of, setOf] = useState<Shown>(only ?? "label");
  const shown = (photo: PanelView["photos"][number]) =>
    (photo.breaker ?? undefined) === breaker && (only === undefined || photo.of === only);
  const photos = view.photos.filter(shown);
  const take = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    event.target.value = "";
    if (!file) return;
    const photo = newId();
    try {
      await putPhoto(home, photo, file);
      await act(
        [{ kind: "photo_taken", photo, panel: view.panel.id, of: breaker ? "breaker" : of, breaker: breaker ?? null }],
        "The photo is saved.",
      );
    } catch (refused) {
      say.problem(refused);
    }
  };
  return (
    <Block title="Photos">
      <Box sx={{ display: "grid", gap: 1, gridTemplateColumns: "repeat(auto-fill, minmax(96px, 1fr))", mb: 1.5 }}>
        {photos.map((photo) => {
          const ofBreaker = photo.of === "heat" ? "A thermal picture" : "The breaker";
          const words = SHOWN.find(([shown]) => shown === photo.of)?.[1] ?? ofBreaker;
          return (
            <Box key={photo.id} component="figure" sx={{ m: 0 }}>
              <Box
                component="a"
                href={`/api/homes/${home}/photos/${photo.id}`}
                target="_blank"
                rel="noreferrer"
                sx={{ display: "block", color: "inherit" }}
              >
                <Box
                  component="img"
                  src={`/api/homes/${home}/photos/${photo.id}`}
                  alt={`${words}, ${dateOf(photo.at)}`}
                  sx={{ width: "100%", height: 96, objectFit: "cover", border: `1px solid ${tone("rule")}` }}
                />
              </Box>
              <Typography component="figcaption" variant="caption">
                {words}
              </Typography>
              <Button
                size="small"
                color="inherit"
                aria-label={`Strike out the photo of ${words.toLowerCase()}`}
                onClick={() => void act([{ kind: "line_struck", line: photo.line }], undefined)}
              >
                Strike out
              </Button>
            </Box>
          );
        })}
      </Box>
      <input
        ref={input}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        aria-label="Photo"
        hidden
        onChange={(event) => void take(event)}
      />
      {breaker === undefined && only === undefined ? (
        <Button variant="outlined" aria-haspopup="menu" onClick={(event) => setMenu(event.currentTarget)}>
          Add a photo
        </Button>
      ) : (
        <Button variant="outlined" onClick={() => input.current?.click()}>
          Add a photo
        </Button>
      )}
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        {SHOWN.map(([shown, words]) => (
          <MenuItem
            key={shown}
            onClick={() => {
              setMenu(null);
              setOf(shown);
              input.current?.click();
            }}
          >
            {words}
          </MenuItem>
        ))}
      </Menu>
    </Block>
  );
}
