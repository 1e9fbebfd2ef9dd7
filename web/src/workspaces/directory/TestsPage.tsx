import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { DeviceTest, TestWent, TestsView } from "../../api/client";
import { now } from "../../api/clock";
import { useTests } from "../../api/queries";
import { tone } from "../../app/theme";
import { useAct } from "../../app/useAct";
import { useThisHome } from "../../app/useThisHome";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";
import { Loaded } from "../../parts/Loaded";
import { dateOf } from "../../parts/when";

const OF_BUTTON: readonly (readonly [TestWent, string])[] = [
  ["works", "It tripped and was reset"],
  ["no_trip", "It did not trip"],
  ["no_reset", "It does not stay reset"],
];
const OF_ALARM: readonly (readonly [TestWent, string])[] = [
  ["works", "It sounded"],
  ["silent", "It stayed silent"],
];
const WORDS: Record<TestWent, string> = {
  works: "worked",
  no_trip: "did not trip",
  no_reset: "did not stay reset",
  silent: "stayed silent",
};

/** Tests that come round: every button, one after the other, with what goes dark and what is to be minded. */
export function TestsPage() {
  const home = useThisHome();
  const tests = useTests(home.id);
  return (
    <>
      <Typography variant="h1">Tests that come round</Typography>
      <Typography color="text.secondary" sx={{ mb: 2, maxWidth: 760 }}>
        GFCIs, AFCIs and alarms have a button that shows whether they still protect. Makers ask for a press once a
        month; what is printed on yours goes before this.
      </Typography>
      <Loaded query={tests} what="tests">
        {(view: TestsView) => <Round home={home.id} view={view} />}
      </Loaded>
    </>
  );
}

function Round({ home, view }: { home: string; view: TestsView }) {
  // What was due when the page was opened: a device that was just tested leaves the list, none comes up by itself.
  const [opened] = useState(now);
  const due = view.devices.filter((test) => test.due == null || test.due <= opened);
  const later = view.devices.filter((test) => !due.includes(test));
  if (view.devices.length === 0) {
    return (
      <Alert severity="info" variant="outlined">
        No test button is recorded. Say of a breaker that it is a GFCI or AFCI on its page in the panel, of a receptacle
        that it is a GFCI and where alarms are in the house.
      </Alert>
    );
  }
  return (
    <Stack spacing={2} sx={{ maxWidth: 760 }}>
      <Alert severity="warning" variant="outlined">
        A test cuts the power for a moment. Wait while somebody is on a ladder, at a machine, or lives by something that
        must not stop. Dry hands, dry floor. Heat, a smell, buzzing or water: do not press anything, call an
        electrician.
      </Alert>
      <Typography variant="h2" data-testid="due">
        {due.length === 0 ? "Nothing is due" : due.length === 1 ? "1 is due" : `${due.length} are due`}
      </Typography>
      <Tests home={home} tests={due} />
      {later.length > 0 && (
        <Fold label={`${later.length} tested and not due`} onPage>
          <Tests home={home} tests={later} />
        </Fold>
      )}
      <Fold label="how often" onPage>
        <HowOften home={home} view={view} />
      </Fold>
      <Button component={Link} to="../directory" color="inherit" sx={{ alignSelf: "start" }}>
        Back to the card
      </Button>
    </Stack>
  );
}

function Tests({ home, tests }: { home: string; tests: readonly DeviceTest[] }) {
  return (
    <Box component="ul" data-testid="tests" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 1.5 }}>
      {tests.map((test) => (
        <One key={JSON.stringify(test.device)} home={home} test={test} />
      ))}
    </Box>
  );
}

function One({ home, test }: { home: string; test: DeviceTest }) {
  const act = useAct(home);
  const answers = test.what === "alarm" ? OF_ALARM : OF_BUTTON;
  return (
    <Box
      component="li"
      data-name={test.name}
      sx={{ bgcolor: "background.paper", border: `1px solid ${tone("rule")}`, borderRadius: 1, p: 2 }}
    >
      <Typography variant="h3" component="h3">
        {test.name}
      </Typography>
      <Typography color="text.secondary">
        {test.what}, {test.place}.{" "}
        {test.last == null || test.went == null
          ? "Never tested, as far as is recorded."
          : `${WORDS[test.went]} on ${dateOf(test.last)}.`}
        {test.due != null && ` Due on ${dateOf(test.due)}.`}
      </Typography>
      {test.todo !== "" && (
        <Alert severity="error" variant="outlined" sx={{ my: 1 }}>
          {test.todo}
        </Alert>
      )}
      {test.mind !== "" && (
        <Alert severity="warning" variant="outlined" sx={{ my: 1 }}>
          {test.mind}
        </Alert>
      )}
      <Typography sx={{ mt: 1 }}>{test.how}</Typography>
      {test.goes_dark !== "" && <Typography sx={{ mt: 0.5 }}>{test.goes_dark}</Typography>}
      <Stack direction="row" useFlexGap spacing={1} sx={{ mt: 1.5, flexWrap: "wrap" }}>
        {answers.map(([went, words], n) => (
          <Button
            key={went}
            variant={n === 0 ? "contained" : "outlined"}
            color={n === 0 ? "primary" : "inherit"}
            aria-label={`${test.name}: ${words}`}
            onClick={() =>
              void act([{ kind: "device_tested", device: test.device, went }], `${test.name}: ${WORDS[went]}.`)
            }
          >
            {words}
          </Button>
        ))}
      </Stack>
    </Box>
  );
}

const MONTHS = [
  ["1", "every month"],
  ["2", "every 2 months"],
  ["3", "every 3 months"],
  ["6", "every 6 months"],
  ["12", "once a year"],
] as const;

function HowOften({ home, view }: { home: string; view: TestsView }) {
  const act = useAct(home);
  const { months } = view;
  const options = (chosen: number) =>
    MONTHS.some(([value]) => value === String(chosen))
      ? MONTHS
      : ([...MONTHS, [String(chosen), `every ${chosen} months`]] as const);
  const set = (changed: Partial<typeof months>) =>
    void act([{ kind: "tests_set", months: { ...months, ...changed } }], "Written down.");
  return (
    <Stack direction="row" useFlexGap spacing={2} sx={{ flexWrap: "wrap" }}>
      <Choice
        label="GFCI and AFCI buttons"
        value={String(months.buttons)}
        options={options(months.buttons)}
        onChange={(value) => set({ buttons: Number(value) })}
      />
      <Choice
        label="Alarms"
        value={String(months.alarms)}
        options={options(months.alarms)}
        onChange={(value) => set({ alarms: Number(value) })}
      />
    </Stack>
  );
}
