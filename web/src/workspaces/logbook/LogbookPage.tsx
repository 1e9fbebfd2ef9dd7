import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useState } from "react";
import { useSearchParams } from "react-router";
import { ProblemError, type LogbookPage as Page } from "../../api/client";
import { useChanges, useLogbook } from "../../api/logbook";
import { useRecord } from "../../api/record";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { useThisHome } from "../../app/useThisHome";
import { Loaded } from "../../parts/Loaded";
import { ChangesShown } from "./ChangesShown";
import { DependDialog } from "./DependDialog";
import { Filters } from "./Filters";
import { LineRow } from "./LineRow";
import { ALL_LINES, asked, sinceOf, type Filter } from "./filter";

/** Every fact in order, newest first. Nothing is changed, only struck out; the answers follow. */
export function LogbookPage() {
  const home = useThisHome();
  const record = useRecord(home.id);
  const say = useNotice();
  const act = useAct(home.id);
  const [before, setBefore] = useState<number | null>(null);
  const [depend, setDepend] = useState<{ lines: string[]; words: string } | null>(null);
  const [params, setParams] = useSearchParams();
  const filter = asked(params);
  const since = sinceOf(filter.since);
  const changes = useChanges(home.id, since);
  const text = useDeferredValue(filter.text);
  const { by, room, breaker, topic } = filter;
  const after = since === null ? 0 : (changes.data?.after ?? 0);
  const page = useLogbook(home.id, { before, after, text, by, room, breaker, topic });
  const choose = (next: Filter) => {
    setBefore(null);
    setParams(new URLSearchParams(Object.entries(next).filter(([, value]) => value !== "")), { replace: true });
  };
  const narrowed = Object.values(filter).some((value) => value !== "");

  const strike = async (lines: string[]) => {
    try {
      await record(lines.map((line) => ({ kind: "line_struck", line })));
      setDepend(null);
    } catch (refused) {
      if (refused instanceof ProblemError && refused.problem.code === "lines_depend") {
        setDepend({ lines: [...lines, ...refused.problem.lines], words: refused.problem.title });
      } else say.problem(refused);
    }
  };
  const restore = (line: string) => void record([{ kind: "line_restored", line }]).catch(say.problem);

  return (
    <>
      <Stack direction="row" useFlexGap spacing={2} sx={{ alignItems: "center", flexWrap: "wrap", mb: 2 }}>
        <Typography variant="h1">Logbook</Typography>
        <Button variant="outlined" href={`/api/homes/${home.id}/export`} download>
          Save home as a file
        </Button>
        <Button color="inherit" href={`/api/homes/${home.id}/export?without_names=true`} download>
          Save it for a new owner, without helpers’ names
        </Button>
      </Stack>
      <Filters home={home} filter={filter} people={page.data?.people ?? []} onChange={choose} />
      {since !== null && (
        <Loaded query={changes} what="changes">
          {(data) => <ChangesShown changes={data} day={"since" in since ? since.since : null} />}
        </Loaded>
      )}
      <Loaded query={page} what="logbook">
        {(data: Page) => (
          <>
            <Typography color="text.secondary" sx={{ mb: 1 }}>
              {narrowed ? `${data.wanted} of ${data.total} lines` : `${data.total} lines`}, newest first. A line struck
              out stays here and no longer counts.
            </Typography>
            <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, maxWidth: 900 }} data-testid="logbook">
              {data.lines.map((line) => (
                <LineRow
                  key={line.line.entry.id}
                  line={line}
                  onStrike={() => void strike([line.line.entry.id])}
                  onRestore={() => restore(line.line.entry.id)}
                  onWrongHandle={() =>
                    void act(
                      [{ kind: "wrong_handle", line: line.line.entry.id }],
                      "Noted: what was seen under that handle does not count any more.",
                    )
                  }
                />
              ))}
            </Box>
            {narrowed && data.wanted === 0 && (
              <Stack direction="row" useFlexGap spacing={1.5} sx={{ alignItems: "center", flexWrap: "wrap", mt: 2 }}>
                <Typography>No line is like that.</Typography>
                <Button variant="outlined" onClick={() => choose(ALL_LINES)}>
                  Show every line
                </Button>
              </Stack>
            )}
            <Stack direction="row" spacing={1.5} sx={{ mt: 2 }}>
              {before !== null && (
                <Button variant="outlined" onClick={() => setBefore(null)}>
                  Newest lines
                </Button>
              )}
              {data.before != null && (
                <Button variant="outlined" onClick={() => setBefore(data.before ?? null)}>
                  Older lines
                </Button>
              )}
            </Stack>
          </>
        )}
      </Loaded>
      {depend && (
        <DependDialog
          words={depend.words}
          count={depend.lines.length}
          onStrike={() => void strike(depend.lines)}
          onClose={() => setDepend(null)}
        />
      )}
    </>
  );
}
