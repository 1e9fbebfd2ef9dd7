import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Changes } from "../../api/client";
import { tone } from "../../app/theme";
import { Block } from "../../parts/Block";
import { dateOf, when } from "../../parts/when";

/** Ann with 12, Ben with 3. */
const wrote = (changes: Changes) =>
  changes.people.map(({ by, lines }) => `${by} wrote ${lines} ${lines === 1 ? "line" : "lines"}`).join(", ");

/** What is otherwise than it was, the gravest first. */
export function ChangesShown({ changes, day }: { changes: Changes; day: number | null }) {
  const last = changes.since == null ? "the first line" : when(changes.since);
  const since = `since ${day === null ? last : dateOf(day)}`;
  return (
    <Box sx={{ maxWidth: 900, mb: 2 }} data-testid="changes">
      <Block title={`What changed ${since}`}>
        <Typography color="text.secondary">
          {changes.lines === 0 ? "Nothing was written since then." : `${wrote(changes)}.`}
        </Typography>
        {changes.lines > 0 && changes.said.length === 0 && (
          <Typography>
            Nothing of it changes what is proven, found, off or in the panel. The lines themselves stand below.
          </Typography>
        )}
        <Box component="dl" sx={{ m: 0 }}>
          {changes.said.map((said, n) => (
            <Box
              key={n}
              sx={{
                borderTop: `1px solid ${tone("rule")}`,
                py: 1,
                display: "grid",
                columnGap: 2,
                gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "150px minmax(0, 1fr)" },
              }}
            >
              <Typography
                component="dt"
                color={said.grave ? "error" : "text.secondary"}
                sx={{ fontWeight: 700, fontSize: "0.9rem", pt: { sm: 0.2 } }}
              >
                {said.margin}
              </Typography>
              <Typography component="dd" sx={{ m: 0, overflowWrap: "anywhere" }}>
                {said.words}
              </Typography>
            </Box>
          ))}
        </Box>
      </Block>
    </Box>
  );
}
