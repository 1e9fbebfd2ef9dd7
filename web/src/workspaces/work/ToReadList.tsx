import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { ToRead } from "../../api/client";
import { useAct } from "../../app/useAct";
import { Choice } from "../../parts/Choice";

interface Props {
  home: string;
  lines: readonly ToRead[];
  onWish: (wish: string) => void;
}

const PAGES = {
  trace: ["trace", "Trace it"],
  loads: ["loads", "Enter loads"],
  service: ["loads/service", "See the service"],
} as const;

/** What has to be read before a way is sure, each answered where it stands or on its page. */
export function ToReadList({ home, lines, onWish }: Props) {
  return (
    <>
      <Box component="ul" sx={{ mt: 0, mb: 1, pl: 2.5 }}>
        {lines.map((line) => (
          <Box component="li" key={line.words} sx={{ mb: 1 }} data-read={line.words}>
            <Typography variant="body2">
              {line.words}
              {line.on_the_sheet && " (the job sheet asks for it)"}
            </Typography>
            <Answer home={home} line={line} onWish={onWish} />
          </Box>
        ))}
      </Box>
      {lines.some((line) => line.cover_off) && (
        <Typography variant="body2" sx={{ mb: 1, fontWeight: 700 }}>
          What is behind the cover is read by qualified people: main off, and the line-side lugs stay live all the same.
        </Typography>
      )}
    </>
  );
}

function Answer({ home, line, onWish }: { home: string; line: ToRead; onWish: (wish: string) => void }) {
  const act = useAct(home);
  const [amps, setAmps] = useState("");
  if (line.choices.length > 0) {
    const options = [["", "not read"], ...line.choices.map((choice) => [choice.words, choice.words] as const)] as const;
    const read = (words: string) => {
      const choice = line.choices.find((one) => one.words === words);
      if (choice !== undefined) void act([choice.fact], `Read: ${line.words}: ${choice.words}.`);
    };
    return (
      <Box role="group" aria-label={line.words} sx={{ display: "grid", mt: 1, maxWidth: 320 }}>
        <Choice label="It is" value="" options={options} onChange={read} />
      </Box>
    );
  }
  if (line.page != null) {
    const [path, words] = PAGES[line.page];
    return (
      <Link
        component={RouterLink}
        color="inherit"
        to={`/h/${home}/${path}`}
        sx={{ display: "inline-block", lineHeight: "44px" }}
      >
        {words}
      </Link>
    );
  }
  if (line.wish !== "") {
    return (
      <Stack direction="row" spacing={1} sx={{ mt: 1, alignItems: "center" }}>
        <TextField
          label="It takes, A"
          value={amps}
          onChange={(event) => setAmps(event.target.value.replace(/[^0-9]/g, "").slice(0, 3))}
          autoComplete="off"
          sx={{ width: 130 }}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
        />
        <Button variant="outlined" disabled={amps === ""} onClick={() => onWish(`${line.wish}${amps} A`)}>
          Search again
        </Button>
      </Stack>
    );
  }
  return null;
}
