import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useState, type MouseEvent } from "react";
import type { HomeOverview, PlanFloor } from "../../../api/client";
import { propose, putPhoto } from "../../../api/queries";
import { newId } from "../../../api/record";
import { tone } from "../../../app/theme";
import { useAct } from "../../../app/useAct";
import { wordsOf } from "../../../app/useNotice";
import { FileButton } from "../../../parts/form/FileButton";

interface Pixel {
  x: number;
  y: number;
}

interface Picture {
  file: File;
  url: string;
  width: number;
  height: number;
}

interface Props {
  home: HomeOverview;
  floor: PlanFloor;
  onClose: () => void;
}

/** A photo or scan of an old plan underneath: two taps on a wall whose length is known give its scale. */
export function BackdropDialog({ home, floor, onClose }: Props) {
  const act = useAct(home.id);
  const [picture, setPicture] = useState<Picture | null>(null);
  const [ends, setEnds] = useState<Pixel[]>([]);
  const [length, setLength] = useState("");
  const [error, setError] = useState<string | null>(null);
  useEffect(() => () => URL.revokeObjectURL(picture?.url ?? ""), [picture]);
  const load = (file: File) => {
    setError(null);
    setEnds([]);
    if (file.size > 8 << 20) {
      setError(`This picture has ${Math.round(file.size / (1 << 20))} MB; the limit is 8 MB. Save it smaller.`);
      return;
    }
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.onload = () => setPicture({ file, url, width: image.naturalWidth, height: image.naturalHeight });
    image.onerror = () => setError("This file cannot be shown as a picture. Save it as JPEG, PNG or WebP.");
    image.src = url;
  };
  const point = (event: MouseEvent<HTMLImageElement>) => {
    if (!picture) return;
    const box = event.currentTarget.getBoundingClientRect();
    const at = {
      x: ((event.clientX - box.left) / box.width) * picture.width,
      y: ((event.clientY - box.top) / box.height) * picture.height,
    };
    setEnds(ends.length >= 2 ? [at] : [...ends, at]);
  };
  const keep = async () => {
    const [a, b] = ends;
    if (!picture || !a || !b) return;
    try {
      const photo = newId();
      const laying = {
        wish: "lay_backdrop",
        photo,
        floor: floor.name,
        width_px: picture.width,
        height_px: picture.height,
        a,
        b,
        length,
      } as const;
      const proposal = await propose(home.id, laying);
      await putPhoto(home.id, photo, picture.file);
      if (await act(proposal.facts, proposal.said)) onClose();
    } catch (refused) {
      setError(wordsOf(refused));
    }
  };
  const mark = (end: Pixel, n: number) =>
    picture && (
      <Box
        key={n}
        sx={{
          position: "absolute",
          left: `${(end.x / picture.width) * 100}%`,
          top: `${(end.y / picture.height) * 100}%`,
          width: 18,
          height: 18,
          m: "-9px",
          border: `3px solid ${tone("blaze")}`,
          borderRadius: "50%",
          pointerEvents: "none",
        }}
      />
    );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="backdrop-title">
      <DialogTitle id="backdrop-title">A photo or scan underneath</DialogTitle>
      <DialogContent>
        <Stack spacing={2}>
          <div>
            <FileButton
              words="Choose the picture"
              label="Picture of the plan"
              accept="image/jpeg,image/png,image/webp"
              onFile={load}
            />
          </div>
          {error !== null && (
            <Alert severity="error" variant="outlined" data-testid="backdrop-error">
              {error}
            </Alert>
          )}
          {picture && (
            <>
              <Typography>
                {ends.length < 2
                  ? `Tap the ${ends.length === 0 ? "first" : "other"} end of a wall whose length you know.`
                  : "How long is it?"}
              </Typography>
              <Box sx={{ position: "relative", alignSelf: "flex-start" }}>
                <Box
                  component="img"
                  src={picture.url}
                  alt="The picture to put underneath"
                  onClick={point}
                  sx={{ maxWidth: "100%", maxHeight: "46dvh", display: "block", cursor: "crosshair" }}
                  data-testid="backdrop-picture"
                />
                {ends.map(mark)}
              </Box>
              <TextField
                label="Its length"
                value={length}
                onChange={(e) => setLength(e.target.value)}
                placeholder="4.2 or 13'9&quot;"
                size="small"
                sx={{ maxWidth: 240 }}
              />
            </>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} color="inherit">
          Cancel
        </Button>
        <Button variant="contained" disabled={ends.length < 2 || length.trim() === ""} onClick={() => void keep()}>
          Put it underneath
        </Button>
      </DialogActions>
    </Dialog>
  );
}
