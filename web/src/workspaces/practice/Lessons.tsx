import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { Lesson, LessonLine } from "../../api/client";
import { useLessons } from "../../api/lessons";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";
import { Loaded } from "../../parts/Loaded";

/** What there is to learn, in its order, and what comes next by the marks. */
export function Lessons({ home }: { home: string }) {
  const lessons = useLessons(home);
  return (
    <Loaded query={lessons} what="lessons">
      {(lines: LessonLine[]) => (
        <Block title="Lessons, in their order">
          <Box component="ol" data-testid="lessons" sx={{ listStyle: "none", m: 0, p: 0 }}>
            {lines.map((line, n) => (
              <Line key={line.lesson} home={home} line={line} number={n + 1} />
            ))}
          </Box>
        </Block>
      )}
    </Loaded>
  );
}

/** The lesson for which a house is made; the card is hung in one that is traced. */
const MADE_FOR: Record<Exclude<LessonLine["lesson"], "panel">, Lesson> = {
  card: "measure",
  trace: "trace",
  measure: "measure",
  plan: "work",
  fault: "fault",
};

function Line({ home, line, number }: { home: string; line: LessonLine; number: number }) {
  const stands = line.good ? "done well" : line.said === "" ? "not tried" : line.done ? "once more" : "begun";
  // The first lesson is about the home itself, the card of a house hangs in its directory, the others are made below.
  const opens =
    line.lesson === "panel"
      ? `/h/${home}/practice/panel`
      : line.home == null
        ? `/h/${home}/practice?lesson=${MADE_FOR[line.lesson]}#make`
        : `/h/${line.home}/${line.lesson === "card" ? "directory" : "practice"}`;
  return (
    <Box
      component="li"
      data-lesson={line.lesson}
      sx={{
        display: "grid",
        gridTemplateColumns: "32px minmax(0, 1fr) auto",
        columnGap: 1,
        alignItems: "start",
        borderTop: number === 1 ? "none" : `1px solid ${tone("rule")}`,
        py: 1,
      }}
    >
      <Typography component="span" sx={{ fontFamily: "Overpass Variable", fontWeight: 800, fontSize: "1.3rem" }}>
        {number}
      </Typography>
      <Box>
        <Typography component="span" sx={{ fontWeight: 700 }}>
          {line.title}
        </Typography>
        <Typography component="span" color="text.secondary">
          {" "}
          · {stands}
        </Typography>
        <Typography variant="body2">{line.about}</Typography>
        {line.said !== "" && (
          <Typography variant="body2" color="text.secondary">
            {line.said}
          </Typography>
        )}
      </Box>
      <Button
        component={Link}
        to={opens}
        variant={line.next ? "contained" : "text"}
        color={line.next ? "primary" : "inherit"}
        aria-label={line.next ? `Next: ${line.title}` : `Open: ${line.title}`}
      >
        {line.next ? "Next" : "Open"}
      </Button>
    </Box>
  );
}
