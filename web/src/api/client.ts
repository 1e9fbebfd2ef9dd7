import createClient from "openapi-fetch";
import type { components, paths } from "./generated";

type Schemas = components["schemas"];
export type HomeOverview = Schemas["HomeOverview"];
export type HomeInList = Schemas["HomeInList"];
export type Health = Schemas["Health"];
export type Blade = Schemas["Blade"];
export type Post = Schemas["Post"];
export type OpenSpace = Schemas["OpenSpace"];
export type Panel = Schemas["Panel"];
export type Room = Schemas["Room"];
export type KnownPoint = Schemas["KnownPoint"];
export type PointKind = Schemas["PointKind"];
export type Verdict = Schemas["Verdict"];
export type Evidence = Schemas["Evidence"];
export type TraceView = Schemas["TraceView"];
export type NextStep = Schemas["NextStep"];
export type RoomToWalk = Schemas["RoomToWalk"];
export type PointToSee = Schemas["PointToSee"];
export type Card = Schemas["Card"];
export type CardCell = Schemas["CardCell"];
export type CardLine = Schemas["CardLine"];
export type Fact = Schemas["Fact"];
export type Draft = Schemas["Draft"];
export type Instrument = Schemas["Instrument"];
export type LogbookPage = Schemas["LogbookPage"];
export type ToldLine = Schemas["ToldLine"];
export type Finding = Schemas["Finding"];
export type Progress = Schemas["Progress"];
export type Problem = Schemas["Problem"];
export type Seen = Schemas["Seen"];
export type State = Schemas["State"];
export type Wire = Schemas["Wire"];

export const api = createClient<paths>({ baseUrl: "/" });

/** What the program said when it could not do it: one sentence on what is wrong, one on what was kept. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(`${problem.title} ${problem.detail}`);
  }
}

/** The program did not answer at all. */
export class NoAnswer extends Error {
  constructor() {
    super("Wayfinder does not answer. What was recorded is kept; check that the program still runs.");
  }
}

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "title" in value && "detail" in value && "status" in value;
}

/** The data of an answer, or a thrown problem. */
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new NoAnswer();
  }
  if (result.data !== undefined) return result.data;
  if (isProblem(result.error)) throw new ProblemError(result.error);
  throw new NoAnswer();
}
