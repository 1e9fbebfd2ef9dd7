import { useQueries, useQuery, useQueryClient, type UseQueryResult } from "@tanstack/react-query";
import { useEffect, useState, useSyncExternalStore } from "react";
import { keptSince, onKept } from "./kept";
import { mayHaveMissed, refresh } from "./refresh";
import { answer, api, NoAnswer } from "./client";
import { myName } from "./record";
import type {
  Problem,
  Checks,
  ColumnRole,
  HomeNow,
  HomeOverview,
  Instrument,
  Job,
  KnownPoints,
  NewLoadKind,
  PanelView,
  Proposal,
  ServiceMethod,
  SizeAsked,
  UtilityShows,
  Wish,
} from "./client";
import type { paths } from "./generated/types";

export const of = (home: string) => ["home", home] as const;

export const useHealth = () =>
  useQuery({ queryKey: ["health"], queryFn: () => answer(api.GET("/api/health")), staleTime: Infinity });

export const useHomes = () =>
  useQuery({
    queryKey: ["homes"],
    queryFn: () => answer(api.GET("/api/homes")),
    // After its start the program looks every home through for damage; what it finds is shown without being asked for.
    refetchInterval: ({ state }) => ((state.data?.unchecked ?? 0) > 0 ? 2000 : false),
  });

/**
 * A home as the screens draw it. Each part is asked for on its own: what a new line did not change is answered with "you have
 * it", and the browser keeps it.
 */
export function useHome(home: string): { data: HomeOverview | undefined; error: unknown; refetch: () => unknown } {
  const params = { path: { home } };
  const key = of(home);
  return useQueries({
    queries: [
      { queryKey: [...key, "now"], queryFn: () => answer(api.GET("/api/homes/{home}", { params })) },
      { queryKey: [...key, "panels"], queryFn: () => answer(api.GET("/api/homes/{home}/panels", { params })) },
      { queryKey: [...key, "points"], queryFn: () => answer(api.GET("/api/homes/{home}/points", { params })) },
      { queryKey: [...key, "checks"], queryFn: () => answer(api.GET("/api/homes/{home}/checks", { params })) },
    ],
    combine: together,
  });
}

type Parts = [
  UseQueryResult<HomeNow>,
  UseQueryResult<PanelView[]>,
  UseQueryResult<KnownPoints>,
  UseQueryResult<Checks>,
];

/** The parts as one, as soon as all are there. */
function together([now, panels, points, checks]: Parts) {
  const parts = [now, panels, points, checks];
  const all = now.data && panels.data && points.data && checks.data;
  return {
    data: all && { ...now.data, panels: panels.data, ...points.data, ...checks.data },
    error: parts.find((part) => part.error)?.error ?? null,
    refetch: () => parts.map((part) => part.refetch()),
  };
}

export const useTrace = (home: string) =>
  useQuery({
    queryKey: [...of(home), "trace"],
    queryFn: () => answer(api.GET("/api/homes/{home}/trace", { params: { path: { home } } })),
  });

/** Who one is here. Asked again now and then: the owner may have sent somebody away. */
/** Asked for again and again while the program does not answer, so that it is noticed when it does. */
export function useMe() {
  const kept = useKeptSince() !== null;
  return useQuery({
    queryKey: ["me"],
    queryFn: () => answer(api.GET("/api/me")),
    retry: 3,
    refetchInterval: kept ? 3000 : false,
  });
}

/** Since when what is shown is not what the program says now; null where it answers. */
export const useKeptSince = () => useSyncExternalStore(onKept, keptSince);

/** Who shares the home network with this program now. */
export const useSharing = (watched: boolean) =>
  useQuery({
    queryKey: ["sharing"],
    queryFn: () => answer(api.GET("/api/sharing")),
    refetchInterval: (query) => (watched || query.state.data?.open === true ? 2000 : 60_000),
  });

/** A helper's own next step. */
export const useHelper = (home: string) =>
  useQuery({
    queryKey: [...of(home), "helper"],
    queryFn: () => answer(api.GET("/api/homes/{home}/helper", { params: { path: { home } } })),
  });

/** How good the trace of a made-up house is. */
export const useMarks = (home: string, reveal: boolean) =>
  useQuery({
    queryKey: [...of(home), "marks", reveal],
    placeholderData: (before) => before,
    queryFn: () => answer(api.GET("/api/homes/{home}/practice", { params: { path: { home }, query: { reveal } } })),
  });

/** What an instrument shows in a made-up house. */
export const readInstrument = (
  home: string,
  instrument: Instrument,
  at: { point: string } | { breaker: string } | { point: string; breaker: string } | { handles: true },
) =>
  answer(api.GET("/api/homes/{home}/practice/reading", { params: { path: { home }, query: { instrument, ...at } } }));

/** How good the survey of a made-up house is. */
export const useMeasureMarks = (home: string, reveal: boolean) =>
  useQuery({
    queryKey: [...of(home), "measure marks", reveal],
    placeholderData: (before) => before,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/practice/survey", { params: { path: { home }, query: { reveal } } })),
  });

/** How good the way and the steps in a made-up panel are. */
export const useWorkMarks = (home: string, reveal: boolean) =>
  useQuery({
    queryKey: [...of(home), "work marks", reveal],
    placeholderData: (before) => before,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/practice/work", { params: { path: { home }, query: { reveal } } })),
  });

/** What the step of a job that is next shows in a made-up panel. */
export const readAtJob = (home: string, job: string) =>
  answer(api.GET("/api/homes/{home}/practice/job/{job}", { params: { path: { home, job } } }));

/** Where a meter is held in a made-up house that is to be measured. */
export type MeterAt = NonNullable<paths["/api/homes/{home}/practice/meter"]["get"]["parameters"]["query"]>;

/** What a meter shows in a made-up house that is to be measured. */
export const readMeter = (home: string, at: MeterAt) =>
  answer(api.GET("/api/homes/{home}/practice/meter", { params: { path: { home }, query: at } }));

/** What the utility's meter of a made-up house shows, second by second; `null` before the first word. */
export function useUtilityMeter(home: string, running: string, off: string): UtilityShows | null {
  const asked = new URLSearchParams({ running, off }).toString();
  const [heard, setHeard] = useState<{ asked: string; shows: UtilityShows } | null>(null);
  useEffect(() => {
    const source = new EventSource(`/api/homes/${home}/practice/utility?${asked}`);
    source.addEventListener("shows", (event) =>
      setHeard({ asked, shows: JSON.parse(String(event.data)) as UtilityShows }),
    );
    return () => source.close();
  }, [home, asked]);
  // What was heard before something was switched is not what it shows now.
  return heard?.asked === asked ? heard.shows : null;
}

/** What each method of tracing would take from here; worked out when it is asked for. */
export const useMethods = (home: string, wanted: boolean, when: "before" | "meanwhile" = "meanwhile") =>
  useQuery({
    // What was worked out before the first step says nothing later.
    queryKey: [...of(home), "methods", when],
    enabled: wanted,
    queryFn: () => answer(api.GET("/api/homes/{home}/trace/methods", { params: { path: { home } } })),
    // In a large home it takes seconds. It is worked out only as long as somebody asks.
    refetchInterval: ({ state }) => (state.data !== undefined && state.data.methods == null ? 300 : false),
  });

/** How far the minutes of the methods are worked out. */
export const howFar = (so_far: { done: number; of: number } | undefined): string =>
  so_far === undefined || so_far.of === 0
    ? "Working out what each would take."
    : `Working out what each would take: ${so_far.done} of ${so_far.of} parts done.`;

export const useDirectory = (home: string, panel: string | undefined, colors: string) =>
  useQuery({
    queryKey: [...of(home), "directory", panel, colors],
    enabled: panel !== undefined,
    // The same card in other colors stays in sight until the new one is there.
    placeholderData: (before, query) => (query?.queryKey.includes(panel) === true ? before : undefined),
    queryFn: () => {
      const query = { date: today(), colors, by: myName(), ...(panel !== undefined && { panel }) };
      return answer(api.GET("/api/homes/{home}/directory", { params: { path: { home }, query } }));
    },
  });

/** A sticker for each proven point with a cover plate. */
export const useLetter = (home: string) =>
  useQuery({
    queryKey: [...of(home), "letter"],
    queryFn: () => answer(api.GET("/api/homes/{home}/letter", { params: { path: { home } } })),
  });

/** What is and was wrong, and whom to call. */
export const useTrips = (home: string) =>
  useQuery({
    queryKey: [...of(home), "trips"],
    queryFn: () => answer(api.GET("/api/homes/{home}/trips", { params: { path: { home } } })),
  });

/** One trouble as it stands. */
export const useTrouble = (home: string, trouble: string) =>
  useQuery({
    queryKey: [...of(home), "trips", trouble],
    placeholderData: (before) => before,
    queryFn: () => answer(api.GET("/api/homes/{home}/trips/{trouble}", { params: { path: { home, trouble } } })),
  });

export const useTests = (home: string) =>
  useQuery({
    queryKey: [...of(home), "tests"],
    queryFn: () => answer(api.GET("/api/homes/{home}/tests", { params: { path: { home } } })),
  });

/** Makes the home book; `tell` hears what is being made. Gives the PDF. */
export async function makeBook(
  home: string,
  query: URLSearchParams,
  tell: (making: string, done: number, of: number) => void,
  stop: AbortSignal,
): Promise<Blob> {
  const lost = () => new NoAnswer();
  const asked = await fetch(`/api/homes/${home}/book?${query.toString()}`, { signal: stop }).catch((error: unknown) => {
    throw stop.aborted ? error : lost();
  });
  if (!asked.ok || asked.body === null) throw lost();
  const reader = asked.body.pipeThrough(new TextDecoderStream()).getReader();
  let waiting = "";
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw lost();
    const lines = (waiting + value).split("\n");
    waiting = lines.pop() ?? "";
    for (const line of lines) {
      const said = JSON.parse(line) as
        { making: string; done: number; of: number } | { pdf: string } | { problem: string };
      if ("problem" in said) throw new Error(said.problem);
      if ("pdf" in said) {
        const bytes = Uint8Array.from(atob(said.pdf), (letter) => letter.charCodeAt(0));
        return new Blob([bytes], { type: "application/pdf" });
      }
      tell(said.making, said.done, said.of);
    }
  }
}

export const useStickers = (home: string) =>
  useQuery({
    queryKey: [...of(home), "stickers"],
    queryFn: () => answer(api.GET("/api/homes/{home}/stickers", { params: { path: { home } } })),
  });

/** What is wrong with a sheet of labels, as the program says when it is asked to print it; null where it prints. */
export const useSheetProblem = (home: string, address: string, enabled: boolean) =>
  useQuery({
    queryKey: [...of(home), "stickers", address],
    enabled,
    placeholderData: (before) => before,
    queryFn: async () => {
      const response = await fetch(address);
      if (response.ok) return null;
      const problem = (await response.json()) as Problem;
      return problem.title;
    },
  });

/** Where a breaker may go and what it may be joined with. */
export const useMoves = (home: string, breaker: string | null) =>
  useQuery({
    queryKey: [...of(home), "moves", breaker],
    enabled: breaker !== null,
    queryFn: () =>
      answer(
        api.GET("/api/homes/{home}/breakers/{breaker}/moves", { params: { path: { home, breaker: breaker ?? "" } } }),
      ),
  });

export const useEvidence = (home: string, point: string) =>
  useQuery({
    queryKey: [...of(home), "evidence", point],
    queryFn: () => answer(api.GET("/api/homes/{home}/points/{point}/evidence", { params: { path: { home, point } } })),
  });

/** The loads of the home, circuit by circuit. */
export const useLoads = (home: string) =>
  useQuery({
    queryKey: [...of(home), "loads"],
    queryFn: () => answer(api.GET("/api/homes/{home}/loads", { params: { path: { home } } })),
  });

/** What the utility's data say. */
export const useUsage = (home: string) =>
  useQuery({
    queryKey: [...of(home), "usage"],
    queryFn: () => answer(api.GET("/api/homes/{home}/usage", { params: { path: { home } } })),
  });

/** What the readings of a survey are for. */
export interface SurveyAsked {
  wish: string;
  breaker: string;
  amps: number | null;
  clamp: boolean;
  without: readonly string[];
}

/** The next reading to take, and how every decision stands. */
export const useSurvey = (home: string, { wish, breaker, amps, clamp, without }: SurveyAsked) =>
  useQuery({
    queryKey: [...of(home), "survey", wish, breaker, amps, clamp, without],
    placeholderData: (before) => before,
    enabled: (wish !== "feeder" && wish !== "add") || (breaker !== "" && (wish !== "add" || amps !== null)),
    queryFn: () => {
      const query = {
        wish,
        clamp,
        without: without.join(","),
        ...(breaker !== "" && { breaker }),
        ...(amps !== null && { amps }),
      };
      return answer(api.GET("/api/homes/{home}/survey", { params: { path: { home }, query } }));
    },
  });

/** What each does for the next reading of the survey that everybody who is in takes part in. */
export const useSurveyTogether = (home: string) =>
  useQuery({
    queryKey: [...of(home), "survey together"],
    placeholderData: (before) => before,
    queryFn: () => answer(api.GET("/api/homes/{home}/survey/together", { params: { path: { home } } })),
  });

/** The ways to a wish; `not`: breakers that are not to be touched. */
export const useWork = (home: string, wish: string, panel: string, not: readonly string[]) =>
  useQuery({
    queryKey: [...of(home), "work", wish, panel, not],
    placeholderData: (before) => before,
    enabled: wish !== "",
    queryFn: () =>
      answer(
        api.GET("/api/homes/{home}/work", { params: { path: { home }, query: { wish, panel, not: not.join(",") } } }),
      ),
  });

/** Every job, the open ones first. */
export const useJobs = (home: string) =>
  useQuery({
    queryKey: [...of(home), "jobs"],
    queryFn: () => answer(api.GET("/api/homes/{home}/jobs", { params: { path: { home } } })),
  });

/** A job's sheet. Asked for again now and then: a proof of dead grows old by itself. */
export const useJob = (home: string, job: string) =>
  useQuery({
    queryKey: [...of(home), "jobs", job],
    refetchInterval: 60_000,
    queryFn: () => answer(api.GET("/api/homes/{home}/jobs/{job}", { params: { path: { home, job } } })),
  });

/** Why no sheet can be made of a job; empty where one can. */
export const whyNoSheet = async (home: string, body: Job): Promise<string> =>
  (await answer(api.POST("/api/homes/{home}/jobs/try", { params: { path: { home } }, body }))).why_not;

/** The circuits that were sized and kept. */
export const useSizes = (home: string) =>
  useQuery({
    queryKey: [...of(home), "sizes"],
    queryFn: () => answer(api.GET("/api/homes/{home}/sizes", { params: { path: { home } } })),
  });

/** The size of a circuit, rule by rule. */
export const useSize = (home: string, name: string, asked: SizeAsked | null) =>
  useQuery({
    queryKey: [...of(home), "sizes", name, asked],
    placeholderData: (before) => before,
    enabled: asked !== null,
    retry: false,
    queryFn: () => {
      if (asked === null) throw new NoAnswer();
      return answer(api.POST("/api/homes/{home}/sizes/try", { params: { path: { home } }, body: { name, asked } }));
    },
  });

/** Reads a price list. Writes nothing. */
export const readPrices = (home: string, file: File) =>
  answer(
    api.POST("/api/homes/{home}/prices/read", {
      params: { path: { home } },
      body: file as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "content-type": "application/octet-stream" },
    }),
  );

/** What somebody chose in place of what was guessed of a file of usage. */
export interface UsageChoices {
  value?: number;
  unit?: string;
  meter?: string;
}

/** Reads a file of usage. Writes nothing. */
export async function readUsage(home: string, file: File, choices: UsageChoices) {
  const { value, unit, meter = "" } = choices;
  const chosen = {
    ...(value !== undefined && { value }),
    ...(unit !== undefined && { unit }),
    ...(meter !== "" && { meter }),
  };
  return answer(
    api.POST("/api/homes/{home}/usage", {
      params: { path: { home }, query: { file: file.name, ...chosen } },
      body: file as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "content-type": "application/octet-stream" },
    }),
  );
}

/** The service calculation, today and with a new load. */
export const useService = (home: string, asked: { method: ServiceMethod | ""; kind: NewLoadKind; va: number | null }) =>
  useQuery({
    queryKey: [...of(home), "service", asked],
    placeholderData: (before) => before,
    queryFn: () => {
      const query = {
        ...(asked.method !== "" && { method: asked.method }),
        ...(asked.va !== null && { new_va: asked.va, new_kind: asked.kind }),
      };
      return answer(api.GET("/api/homes/{home}/service", { params: { path: { home }, query } }));
    },
  });

/** What these loads of a circuit take while they run. */
export const useRunning = (home: string, breaker: string, loads: readonly string[]) =>
  useQuery({
    queryKey: [...of(home), "running", breaker, loads.join(",")],
    placeholderData: (before) => before,
    queryFn: () => {
      const query = { breaker, loads: loads.join(",") };
      return answer(api.GET("/api/homes/{home}/loads/running", { params: { path: { home }, query } }));
    },
  });

/** What changes if a load moves to another circuit. */
export const useLoadMoves = (home: string, load: string | null) =>
  useQuery({
    queryKey: [...of(home), "load moves", load],
    enabled: load !== null,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/loads/{load}/moves", { params: { path: { home, load: load ?? "" } } })),
  });

/** Reads what was typed from a data plate. Writes nothing. */
export const readPlate = (text: string) => answer(api.GET("/api/plate", { params: { query: { text } } }));

export const usePlan = (home: string) =>
  useQuery({
    queryKey: [...of(home), "plan"],
    queryFn: () => answer(api.GET("/api/homes/{home}/plan", { params: { path: { home } } })),
  });

export const useRoomWalk = (home: string, room: string | undefined) =>
  useQuery({
    queryKey: [...of(home), "walk", room],
    enabled: room !== undefined,
    placeholderData: (before) => before,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/rooms/{room}/walk", { params: { path: { home, room: room ?? "" } } })),
  });

export const useFind = (home: string, q: string) =>
  useQuery({
    queryKey: [...of(home), "find", q],
    enabled: q.trim() !== "",
    placeholderData: (before) => before,
    queryFn: () => answer(api.GET("/api/homes/{home}/find", { params: { path: { home }, query: { q } } })),
  });

/** What would be recorded for something typed or tapped on the plan. Writes nothing. */
export const propose = (home: string, wish: Wish): Promise<Proposal> =>
  answer(api.POST("/api/homes/{home}/plan/propose", { params: { path: { home } }, body: wish }));

/** Typed rooms line by line, asked anew for every text. */
export const useTypedRooms = (home: string, wish: Extract<Wish, { wish: "type_rooms" }>) =>
  useQuery({
    queryKey: [...of(home), "rooms", wish.text, wish.floor, wish.beside, wish.side],
    enabled: wish.text.trim() !== "",
    placeholderData: (before) => before,
    queryFn: () => propose(home, wish),
  });

/** Reads a drawing file for a floor. Writes nothing. */
export async function readDrawing(home: string, floor: string, file: Blob, unit_mm: number | null) {
  const query = { floor, ...(unit_mm !== null && { unit_mm }) };
  return answer(
    api.POST("/api/homes/{home}/plan/drawing", {
      params: { path: { home }, query },
      body: file as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "content-type": "application/octet-stream" },
    }),
  );
}

/** What the typed card means; asked anew for every text. */
export const useReadCard = (home: string, panel: string, text: string) =>
  useQuery({
    queryKey: [...of(home), "card", panel, text],
    enabled: text.trim() !== "",
    placeholderData: (before) => before,
    queryFn: () =>
      answer(api.POST("/api/homes/{home}/panels/{panel}/card", { params: { path: { home, panel } }, body: { text } })),
  });

/** Today as it is printed: in this device's own time zone. */
export function today(): string {
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/**
 * Listens to the home's stream and asks again for what a new line may have changed. False while the
 * stream is cut: what is shown may be old then.
 */
export function useStream(home: string): boolean {
  const client = useQueryClient();
  const [live, setLive] = useState(true);
  useEffect(() => {
    const source = new EventSource(`/api/homes/${home}/stream`);
    source.addEventListener("grown", (event) => void refresh(client, home, Number(event.data)));
    source.addEventListener("open", () => setLive(true));
    source.addEventListener("error", () => {
      mayHaveMissed(home);
      setLive(false);
    });
    return () => source.close();
  }, [client, home]);
  return live;
}

/** Reads a spreadsheet of the panel; `columns` corrects the guess. Writes nothing. */
export async function readSheet(home: string, panel: string, file: Blob, columns: ColumnRole[] | null) {
  const query = columns === null ? {} : { columns: columns.join(",") };
  return answer(
    api.POST("/api/homes/{home}/panels/{panel}/sheet", {
      params: { path: { home, panel }, query },
      body: file as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "content-type": "application/octet-stream" },
    }),
  );
}

/** Reads own words out of a sheet of the directory. Writes nothing. */
export const readWords = (home: string, file: File) =>
  answer(
    api.POST("/api/homes/{home}/directory/sheet", {
      params: { path: { home } },
      body: file as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { "content-type": "application/octet-stream" },
    }),
  );

/** Keeps a photo under an id of our own; what it shows is recorded by a line of its own. */
export async function putPhoto(home: string, photo: string, file: Blob): Promise<void> {
  const response = await fetch(`/api/homes/${home}/photos/${photo}`, { method: "PUT", body: file });
  if (!response.ok) {
    const error: unknown = await response.json();
    await answer(Promise.resolve({ error, response }));
  }
}
