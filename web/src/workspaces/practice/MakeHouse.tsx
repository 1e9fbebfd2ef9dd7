import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, type SyntheticEvent } from "react";
import { useLocation, useNavigate, useSearchParams } from "react-router";
import { answer, api, type Lesson, type Level } from "../../api/client";
import { useNotice } from "../../app/useNotice";
import { Block } from "../../parts/Block";
import { Choice } from "../../parts/Choice";
import { FIRST_SCREEN } from "./firstScreen";

const LEVELS: Record<Lesson, [Level, string, string][]> = {
  trace: [
    ["plain", "Plain", "The card is right, one panel, and nothing goes wrong."],
    [
      "usual",
      "Usual",
      "A quarter of the card is wrong, some points are on odd breakers, there are GFCIs. Breakers trip or do not latch, the power may fail, some points go by themselves.",
    ],
    ["tricky", "Tricky", "A sub-panel, too, tripped GFCIs, and points that are missing from the list."],
  ],
  measure: [
    ["plain", "Plain", "Everything is sound."],
    ["usual", "Usual", "A breaker is worn. Its volts under load show it."],
    [
      "tricky",
      "Tricky",
      "A sub-panel, and a neutral that is open: the volts at the outlets show it, and that is where to stop.",
    ],
  ],
  work: [
    ["plain", "Plain", "The panel is sound."],
    ["usual", "Usual", "Something may be wrong in the panel."],
    ["tricky", "Tricky", "Something is wrong in the panel; where it shows is where to stop."],
  ],
  fault: [
    ["plain", "Plain", "What happens most: a GFCI, a lamp, a switch, too much at once."],
    ["usual", "Usual", "Any cause: bad joints, things that short, a clock, an outage."],
    [
      "tricky",
      "Tricky",
      "What is seldom and dangerous: bad joints, an open neutral. Signs of danger are where to stop.",
    ],
  ],
};
const LESSONS: readonly (readonly [Lesson, string])[] = [
  ["trace", "tracing: which breaker feeds what"],
  ["measure", "measuring: what each circuit carries"],
  ["fault", "find the fault: something is dark, and why"],
  ["work", "work: a wish, its best way, and the job sheet"],
];
const WHAT: Record<Lesson, string> = {
  trace:
    "Its wiring is hidden from you and from the trace; instruments on the screen show what real ones would, with their errors. Nothing real is switched.",
  measure:
    "It is traced already, and its loads are entered by the library. What they really take is hidden; meters on the screen show what real ones would, with their errors.",
  fault:
    "It is traced already, and something in it does not work. Follow the looks in Trips; the screen shows what is seen at each. Nothing real is touched.",
  work: "It is traced and its label is read. Choose the way to a wish and work through its sheet; the meter on the screen shows what a real one would. Nothing real is opened.",
};

/** Makes a made-up house to practice on. The same number makes the same house. */
export function MakeHouse() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const say = useNotice();
  const [params, setParams] = useSearchParams();
  const { hash, key } = useLocation();
  const here = useRef<HTMLDivElement>(null);
  // A lesson that was chosen further up is made here.
  useEffect(() => {
    if (hash === "#make") here.current?.scrollIntoView();
  }, [hash, key]);
  const asked = params.get("lesson");
  const lesson = LESSONS.find(([name]) => name === asked)?.[0] ?? "trace";
  const setLesson = (name: Lesson) => setParams({ lesson: name }, { replace: true });
  const [level, setLevel] = useState<Level>("usual");
  const [points, setPoints] = useState("30");
  const [seed, setSeed] = useState("1");
  const make = async (event: SyntheticEvent) => {
    event.preventDefault();
    try {
      const recipe = { seed: Number(seed), points: Number(points), level, lesson };
      const made = await answer(api.POST("/api/practice", { body: recipe }));
      await client.invalidateQueries({ queryKey: ["homes"] });
      await navigate(`/h/${made.home}/${FIRST_SCREEN[lesson]}`);
    } catch (refused) {
      say.problem(refused);
    }
  };
  return (
    <Box ref={here} sx={{ scrollMarginTop: 72 }}>
      <Block title="Practice on a made-up house">
        <Typography variant="body2" sx={{ mb: 1.5 }}>
          {WHAT[lesson]}
        </Typography>
        <Box sx={{ display: "grid", mb: 1.5, maxWidth: { sm: 420 } }}>
          <Choice label="To practice" value={lesson} options={LESSONS} onChange={setLesson} />
        </Box>
        <Stack
          component="form"
          direction={{ xs: "column", sm: "row" }}
          spacing={1.5}
          sx={{ alignItems: { sm: "flex-start" } }}
          onSubmit={(event) => void make(event)}
        >
          <TextField
            select
            label="How hard"
            value={level}
            onChange={(e) => setLevel(e.target.value as Level)}
            helperText={LEVELS[lesson].find(([value]) => value === level)?.[2]}
            sx={{ flex: 2 }}
          >
            {LEVELS[lesson].map(([value, words]) => (
              <MenuItem key={value} value={value}>
                {words}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="Points"
            value={points}
            onChange={(e) => setPoints(e.target.value)}
            required
            autoComplete="off"
            slotProps={{ htmlInput: { inputMode: "numeric" } }}
            sx={{ flex: 1 }}
          />
          <TextField
            label="House number"
            value={seed}
            onChange={(e) => setSeed(e.target.value)}
            required
            autoComplete="off"
            slotProps={{ htmlInput: { inputMode: "numeric" } }}
            sx={{ flex: 1 }}
          />
          <Button type="submit" variant="outlined" sx={{ flexShrink: 0, minHeight: 58 }}>
            Make this house
          </Button>
        </Stack>
      </Block>
    </Box>
  );
}
