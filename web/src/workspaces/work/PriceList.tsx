import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { PricesRead } from "../../api/client";
import { readPrices } from "../../api/queries";
import { useAct } from "../../app/useAct";
import { useNotice } from "../../app/useNotice";
import { Block } from "../../parts/Block";
import { FileButton } from "../../parts/form/FileButton";

/** The owner's price list: out as a pattern, filled in, and in again. */
export function PriceList({ home }: { home: string }) {
  const act = useAct(home);
  const say = useNotice();
  const [read, setRead] = useState<PricesRead | null>(null);
  const take = async (file: File) => {
    try {
      setRead(await readPrices(home, file));
    } catch (refused) {
      setRead(null);
      say.problem(refused);
    }
  };
  const keep = async (list: PricesRead) => {
    const fact = { kind: "prices_set", currency: list.currency, prices: list.prices } as const;
    if (await act([fact], "Price list taken")) setRead(null);
  };
  const count = read === null ? 0 : Object.keys(read.prices).length;
  return (
    <Block title="Your prices">
      <Typography variant="body2" sx={{ mb: 1.5 }}>
        With a price for everything on the list, ways are ranked by it and show what they cost. Without one no money is
        shown.
      </Typography>
      <Stack direction="row" useFlexGap spacing={1.5} sx={{ flexWrap: "wrap" }}>
        <Button variant="outlined" color="inherit" href={`/api/homes/${home}/prices`} download>
          The list as a file
        </Button>
        <FileButton
          words="Read a list"
          label="A price list, CSV, XLSX or ODS"
          accept=".csv,.xlsx,.ods,.txt"
          onFile={(file) => void take(file)}
        />
        <Button
          color="inherit"
          onClick={() => void act([{ kind: "prices_set", currency: "", prices: {} }], "No price list any more")}
        >
          No list
        </Button>
      </Stack>
      {read !== null && (
        <Box data-testid="prices-read" sx={{ mt: 2 }}>
          <Typography>
            {count === 1 ? "1 price was read" : `${count} prices were read`}
            {read.currency !== "" && `, in ${read.currency}`}.
          </Typography>
          {read.odd.map((odd) => (
            <Alert key={odd} severity="warning" variant="outlined" sx={{ mt: 1 }}>
              {odd}
            </Alert>
          ))}
          {read.missing.length > 0 && (
            <Typography variant="body2" sx={{ mt: 1 }}>
              Left out, so no money is shown yet: {read.missing.join(", ")}.
            </Typography>
          )}
          <Stack direction="row" spacing={1.5} sx={{ mt: 1.5 }}>
            <Button variant="contained" onClick={() => void keep(read)}>
              Take this list
            </Button>
            <Button color="inherit" onClick={() => setRead(null)}>
              Leave it
            </Button>
          </Stack>
        </Box>
      )}
    </Block>
  );
}
