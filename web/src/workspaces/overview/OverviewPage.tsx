import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { HomeOverview, Letter, LetterLine, LetterMark } from "../../api/client";
import { now } from "../../api/clock";
import { useChanges } from "../../api/logbook";
import { useLetter } from "../../api/queries";
import { myName } from "../../api/record";
import { testsDue, testsNow } from "../../app/testsNow";
import { tone } from "../../app/theme";
import { useThisHome } from "../../app/useThisHome";
import { SmallPost } from "../../drawing/SmallPost";
import { Tag } from "../../drawing/Tag";
import { Loaded } from "../../parts/Loaded";
import { when } from "../../parts/when";

/** The front page of a home, as a letter: what matters most first, each with one thing to do. */
export function OverviewPage() {
  const home = useThisHome();
  const letter = useLetter(home.id);
  return (
    <Loaded query={letter} what="overview">
      {(shown: Letter) => <Shown home={home} letter={shown} />}
    </Loaded>
  );
}

function Shown({ home, letter }: { home: HomeOverview; letter: Letter }) {
  const marks = new Map(letter.marks.map((mark) => [mark.breaker, mark]));
  const due = testsDue(home);
  return (
    <Box
      sx={{
        display: "grid",
        gap: { xs: 2, md: 5 },
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) auto" },
        alignItems: "start",
      }}
    >
      <Box sx={{ maxWidth: 780 }}>
        <Typography color="text.secondary">{when(now())}</Typography>
        <Typography variant="h1" sx={{ mb: 2 }}>
          {letter.title}
        </Typography>
        <Box component="ol" data-testid="letter" sx={{ listStyle: "none", m: 0, p: 0 }}>
          {letter.lines.map((line, n) => (
            <Line key={`${line.about} ${n}`} home={home.id} line={line} main={n === 0} />
          ))}
          {due > 0 && (
            <Row margin="Tests" about="tests">
              <Typography component="span">
                Test buttons of GFCIs, AFCIs and alarms: {testsNow(home)}.{" "}
                <Act home={home.id} opens="tests" words="Go round" />
              </Typography>
            </Row>
          )}
          <SinceLastVisit home={home} />
        </Box>
      </Box>
      {home.panels.length > 0 && (
        <Stack spacing={2} sx={{ alignItems: "center" }}>
          {home.panels.map((view) => (
            <Box key={view.panel.id} sx={{ textAlign: "center" }}>
              <Typography variant="body2" color="text.secondary">
                {view.panel.name}
              </Typography>
              <SmallPost view={view} marks={marks} label={spoken(view.panel.name, letter.marks)} />
            </Box>
          ))}
          <Typography variant="body2" color="text.secondary" sx={{ maxWidth: 180 }}>
            Orange outline: off. Diamond: danger. Black end: overloaded. Dashed: not proven.
          </Typography>
        </Stack>
      )}
    </Box>
  );
}

/** What others wrote since whoever reads this was here last; nothing where nobody did. */
function SinceLastVisit({ home }: { home: HomeOverview }) {
  const me = myName();
  const changes = useChanges(home.id, { visit: me }).data;
  const others = changes?.people.filter(({ by }) => by !== me) ?? [];
  if (changes?.since == null || others.length === 0) return null;
  const first = changes.said[0];
  return (
    <Row margin="Changed" about="changed">
      <Typography component="span" sx={{ overflowWrap: "anywhere" }}>
        Since you were here last, {when(changes.since)}, {others.map(({ by }) => by).join(", ")} wrote{" "}
        {others.reduce((sum, { lines }) => sum + lines, 0)} lines. {first && `${first.margin}: ${first.words} `}
        <Act home={home.id} opens={`logbook?since=${encodeURIComponent(`visit:${me}`)}`} words="What changed" />
      </Typography>
    </Row>
  );
}

/** What the small post shows, in a sentence. */
function spoken(panel: string, marks: readonly LetterMark[]): string {
  const count = (of: (mark: LetterMark) => boolean) => marks.filter(of).length;
  return `${panel}. In all panels ${count((m) => m.off)} off, ${count((m) => m.danger)} with a danger, ${count((m) => m.overloaded)} overloaded, ${count((m) => m.not_proven)} not proven.`;
}

function Row({ margin, about, children }: { margin: string; about: string; children: ReactNode }) {
  const grave = about === "stop" || about === "danger";
  return (
    <Box
      component="li"
      data-about={about}
      sx={{
        borderTop: `1px solid ${tone("rule")}`,
        py: 2,
        display: "grid",
        columnGap: 2,
        gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "104px minmax(0, 1fr)" },
      }}
    >
      <Typography
        component="span"
        variant="body2"
        color={grave ? "error" : "text.secondary"}
        sx={{ fontWeight: 700, pt: { sm: 0.4 } }}
      >
        {margin}
      </Typography>
      <Box sx={{ minWidth: 0 }}>{children}</Box>
    </Box>
  );
}

function Line({ home, line, main }: { home: string; line: LetterLine; main: boolean }) {
  return (
    <Row margin={line.margin} about={line.about}>
      <Typography component="div" sx={{ lineHeight: 1.7, overflowWrap: "anywhere" }}>
        {line.pieces.map((piece, n) => {
          if (piece.is === "circuit") return <Tag key={n} text={piece.number} />;
          if (piece.is === "at") return <b key={n}>{when(piece.at)}</b>;
          return piece.strong ? <b key={n}>{piece.words}</b> : <span key={n}>{piece.words}</span>;
        })}{" "}
        {line.act !== "" && !main && <Act home={home} opens={line.opens} words={line.act} />}
      </Typography>
      {line.act !== "" && main && (
        <Button component={Link} to={`/h/${home}/${line.opens}`} variant="contained" sx={{ mt: 1.5 }}>
          {line.act}
        </Button>
      )}
    </Row>
  );
}

function Act({ home, opens, words }: { home: string; opens: string; words: string }) {
  return (
    <Button
      component={Link}
      to={`/h/${home}/${opens}`}
      color="inherit"
      sx={{ textDecoration: "underline", textUnderlineOffset: "4px", px: 1 }}
    >
      {words}
    </Button>
  );
}
