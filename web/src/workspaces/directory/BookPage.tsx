import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import LinearProgress from "@mui/material/LinearProgress";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { LISTS } from "../../api/generated/lists";
import { makeBook, today } from "../../api/queries";
import { myName } from "../../api/record";
import { useNotice } from "../../app/useNotice";
import { useThisHome } from "../../app/useThisHome";
import { Choice } from "../../parts/Choice";
import { CARD_COLORS, keepColors, keptColors, type CardColors } from "./cardColors";

const PAPERS = [
  ["letter", "Letter"],
  ["a4", "A4"],
] as const;
type Paper = (typeof PAPERS)[number][0];

/** How far the book is; with its address once it is made. */
interface Made {
  making: string;
  done: number;
  of: number;
  address?: string;
  bytes?: number;
}

/** The home book: which parts, on what paper, and how far it is. */
export function BookPage() {
  const home = useThisHome();
  const say = useNotice();
  const [without, setWithout] = useState<readonly string[]>([]);
  const [paper, setPaper] = useState<Paper>("letter");
  const [colors, setColors] = useState<CardColors>(keptColors);
  const [made, setMade] = useState<Made | null>(null);
  const running = useRef<AbortController | null>(null);
  const address = made?.address;
  useEffect(
    () => () => {
      running.current?.abort();
    },
    [],
  );
  useEffect(
    () => () => {
      if (address !== undefined) URL.revokeObjectURL(address);
    },
    [address],
  );
  const parts = LISTS.bookParts.filter((part) => !without.includes(part.name));
  const change = (then: () => void) => {
    then();
    setMade(null);
  };
  const make = () => {
    const stop = new AbortController();
    running.current = stop;
    setMade({ making: "reading what is known", done: 0, of: 1 });
    const query = new URLSearchParams({
      parts: parts.map((part) => part.name).join(","),
      paper,
      colors,
      date: today(),
      by: myName(),
    });
    makeBook(home.id, query, (making, done, of) => setMade({ making, done, of }), stop.signal).then(
      (pdf) => setMade({ making: "made", done: 1, of: 1, address: URL.createObjectURL(pdf), bytes: pdf.size }),
      (error: unknown) => {
        if (stop.signal.aborted) return;
        setMade(null);
        say.problem(error);
      },
    );
  };
  const name = parts.length === 1 && parts[0] !== undefined ? parts[0].title : "home book";
  return (
    <Stack spacing={2} sx={{ maxWidth: 760 }}>
      <Box>
        <Typography variant="h1">Home book</Typography>
        <Typography color="text.secondary">
          All that is known of this home on paper, with contents and page numbers: for the drawer beside the panel, an
          electrician, whoever lives here next. Take a part away, or print one alone.
        </Typography>
      </Box>
      {home.progress.proven < home.progress.points && (
        <Alert severity="warning" variant="outlined">
          {home.progress.points - home.progress.proven} of {home.progress.points} points are not proven. They are marked
          so on every page; until then a meter at the place itself decides.
        </Alert>
      )}
      <Box role="group" aria-label="Parts" sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {LISTS.bookParts.map((part) => (
          <FormControlLabel
            key={part.name}
            label={part.title}
            control={
              <Checkbox
                checked={!without.includes(part.name)}
                onChange={(_, on) =>
                  change(() => setWithout(on ? without.filter((one) => one !== part.name) : [...without, part.name]))
                }
              />
            }
          />
        ))}
      </Box>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap", alignItems: "center" }}>
        <Choice label="Paper" value={paper} options={PAPERS} onChange={(chosen) => change(() => setPaper(chosen))} />
        <Choice
          label="Colors of the cards"
          value={colors}
          options={CARD_COLORS}
          onChange={(chosen) =>
            change(() => {
              keepColors(chosen);
              setColors(chosen);
            })
          }
        />
      </Stack>
      {address === undefined ? (
        <Button
          variant="contained"
          disabled={parts.length === 0 || made !== null}
          onClick={make}
          sx={{ alignSelf: "start" }}
        >
          Make the PDF
        </Button>
      ) : (
        <Button
          variant="contained"
          href={address}
          download={`${home.name}, ${name}, revision ${home.seq}.pdf`}
          sx={{ alignSelf: "start" }}
        >
          Save the PDF
        </Button>
      )}
      <Box aria-live="polite" data-testid="book-progress" sx={{ minHeight: 48 }}>
        {made !== null && (
          <>
            <LinearProgress
              variant="determinate"
              value={(made.done / made.of) * 100}
              aria-label="How far the book is"
              sx={{ maxWidth: 420 }}
            />
            <Typography variant="body2" sx={{ mt: 0.5 }}>
              {address === undefined
                ? `${made.done + 1} of ${made.of}: ${made.making}`
                : `Made from revision ${home.seq}, ${Math.ceil((made.bytes ?? 0) / 1000)} kB. Print it at 100 %: cards and plans are to scale.`}
            </Typography>
          </>
        )}
      </Box>
      <Button component={Link} to="../directory" color="inherit" sx={{ alignSelf: "start" }}>
        Back to the card
      </Button>
    </Stack>
  );
}
