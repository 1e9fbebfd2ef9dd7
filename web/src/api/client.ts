import createClient from "openapi-fetch";
import { heardTime } from "./clock";
import { heard } from "./kept";
import type { components, paths } from "./generated/types";

type Schemas = components["schemas"];
export type MethodMinutes = Schemas["MethodMinutes"];
export type HomeNow = Schemas["HomeNow"];
export type KnownPoints = Schemas["KnownPoints"];
export type Checks = Schemas["Checks"];
/** A home as the screens draw it, put together from the parts in which it is asked for. */
export type HomeOverview = HomeNow & { panels: PanelView[] } & KnownPoints & Checks;
export type HomeInList = Schemas["HomeInList"];
export type FaultShown = Schemas["FaultShown"];
export type FaultMarks = Schemas["FaultMarks"];
export type LessonLine = Schemas["LessonLine"];
export type KnownPanel = Schemas["KnownPanel"];
export type PanelQuestion = Schemas["PanelQuestion"];
export type PowerPlace = Schemas["PowerPlace"];
export type TroubleWhy = Schemas["TroubleWhy"];
export type AllHomes = Schemas["AllHomes"];
export type DamagedInList = Schemas["DamagedInList"];
export type DeletedHome = Schemas["DeletedHome"];
export type MovedInList = Schemas["MovedInList"];
export type Changes = Schemas["Changes"];
export type Topic = Schemas["Topic"];
export type Health = Schemas["Health"];
export type BreakerView = Schemas["BreakerView"];
export type PanelView = Schemas["PanelView"];
export type Part = Schemas["Part"];
export type Place = Schemas["Place"];
export type Moves = Schemas["Moves"];
export type CardRead = Schemas["CardRead"];
export type SheetRead = Schemas["SheetRead"];
export type ColumnRole = Schemas["ColumnRole"];
export type Edition = Schemas["Edition"];
export type PanelDetails = Schemas["PanelDetails"];
export type BreakerDetails = Schemas["BreakerDetails"];
export type Mend = Schemas["Mend"];
export type OpenSpace = Schemas["OpenSpace"];
export type Plan = Schemas["Plan"];
export type PlanFloor = Schemas["PlanFloor"];
export type PlanNow = Schemas["PlanNow"];
export type PlanPoint = Schemas["PlanPoint"];
export type PlanRoom = Schemas["PlanRoom"];
export type SymbolDrawing = Schemas["SymbolDrawing"];
export type Stroke = Schemas["Stroke"];
export type Spot = Schemas["Spot"];
export type Wish = Schemas["Wish"];
export type Proposal = Schemas["Proposal"];
export type RoomLine = Schemas["RoomLine"];
export type RoomSide = Schemas["RoomSide"];
export type RoomWalk = Schemas["RoomWalk"];
export type WalkPoint = Schemas["WalkPoint"];
export type Found = Schemas["Found"];
export type DrawingRead = Schemas["DrawingRead"];
export type PointDetails = Schemas["PointDetails"];
export type OpeningKind = Schemas["OpeningKind"];
export type Panel = Schemas["Panel"];
export type Room = Schemas["Room"];
export type KnownPoint = Schemas["KnownPoint"];
export type PointKind = Schemas["PointKind"];
export type Known = Schemas["Known"];
export type Evidence = Schemas["Evidence"];
export type TraceView = Schemas["TraceView"];
export type Method = Schemas["Method"];
export type NextStep = Schemas["NextStep"];
export type RoomToWalk = Schemas["RoomToWalk"];
export type PointToSee = Schemas["PointToSee"];
export type Card = Schemas["Card"];
export type CardCell = Schemas["CardCell"];
export type CircuitWorded = Schemas["CircuitWorded"];
export type DirectoryView = Schemas["DirectoryView"];
export type Drift = Schemas["Drift"];
export type HangingCard = Schemas["HangingCard"];
export type Sticker = Schemas["Sticker"];
export type Letter = Schemas["Letter"];
export type LetterLine = Schemas["LetterLine"];
export type LetterMark = Schemas["LetterMark"];
export type TestsView = Schemas["TestsView"];
export type DeviceTest = Schemas["DeviceTest"];
export type TestWent = Schemas["TestWent"];
export type WordsRead = Schemas["WordsRead"];
export type LoadDoes = Schemas["LoadDoes"];
export type CardLine = Schemas["CardLine"];
export type Fact = Schemas["Fact"];
export type Draft = Schemas["Draft"];
export type Instrument = Schemas["Instrument"];
export type LogbookPage = Schemas["LogbookPage"];
export type WordedLine = Schemas["WordedLine"];
export type Finding = Schemas["Finding"];
export type Progress = Schemas["Progress"];
export type Problem = Schemas["Problem"];
export type Seen = Schemas["Seen"];
export type State = Schemas["State"];
export type Wire = Schemas["Wire"];

export type TraceSetup = Schemas["TraceSetup"];
export type Since = Schemas["Since"];
export type Me = Schemas["Me"];
export type SharingNow = Schemas["SharingNow"];
export type HelperView = Schemas["HelperView"];
export type DarkClock = Schemas["DarkClock"];
export type StepSide = Schemas["StepSide"];
export type StepCard = Schemas["StepCard"];
export type StepAct = Schemas["StepAct"];
export type EndsOpen = Schemas["EndsOpen"];
export type StepSwitch = Schemas["Switch"];
export type Handle = Schemas["Handle"];
export type Reading = Schemas["Reading"];
export type Marks = Schemas["Marks"];
export type MeasureMarks = Schemas["MeasureMarks"];
export type WorkMarks = Schemas["WorkMarks"];
export type MarkedWay = Schemas["MarkedWay"];
export type JobShows = Schemas["JobShows"];
export type Job = Schemas["Job"];
export type JobFound = Schemas["JobFound"];
export type JobLine = Schemas["JobLine"];
export type JobMove = Schemas["JobMove"];
export type JobReading = Schemas["JobReading"];
export type JobSheet = Schemas["JobSheet"];
export type JobSheetStep = Schemas["JobSheetStep"];
export type ToRead = Schemas["ToRead"];
export type WayLine = Schemas["WayLine"];
export type WorkView = Schemas["WorkView"];
export type PricesRead = Schemas["PricesRead"];
export type Units = Schemas["Units"];
export type SizeAsked = Schemas["SizeAsked"];
export type SizedLoad = Schemas["SizedLoad"];
export type SizeLine = Schemas["SizeLine"];
export type SizesView = Schemas["SizesView"];
export type SizeView = Schemas["SizeView"];
export type KeptSizeLine = Schemas["KeptSizeLine"];
export type InspectorSaid = Schemas["InspectorSaid"];
export type MeterShows = Schemas["MeterShows"];
export type HeatDiagnosis = Schemas["HeatDiagnosis"];
export type SurveySide = Schemas["SurveySide"];
export type SurveyTogether = Schemas["SurveyTogether"];
export type SurveyWish = Schemas["SurveyWish"];
export type SupplyDiagnosis = Schemas["SupplyDiagnosis"];
export type UtilityShows = Schemas["UtilityShows"];
export type Lesson = Schemas["Lesson"];
export type Recipe = Schemas["Recipe"];
export type Level = Schemas["Level"];
export type Worked = Schemas["Worked"];
export type LoadsView = Schemas["LoadsView"];
export type CircuitLoads = Schemas["CircuitLoads"];
export type LoadLine = Schemas["LoadLine"];
export type Usage = Schemas["Usage"];
export type SurveyView = Schemas["SurveyView"];
export type SurveyStep = Schemas["SurveyStep"];
export type SurveyDecision = Schemas["SurveyDecision"];
export type LevelMark = Schemas["LevelMark"];
export type DemandView = Schemas["DemandView"];
export type DemandSaid = Schemas["DemandSaid"];
export type UsagePreview = Schemas["UsagePreview"];
export type LoadPlate = Schemas["LoadPlate"];
export type NotTogether = Schemas["NotTogether"];
export type PanelLegs = Schemas["PanelLegs"];
export type LegsView = Schemas["LegsView"];
export type ServiceView = Schemas["ServiceView"];
export type ServiceLine = Schemas["ServiceLine"];
export type ServiceMethod = Schemas["ServiceMethod"];
export type NewLoadKind = Schemas["NewLoadKind"];
export type AtAmps = Schemas["AtAmps"];
export type TripSteps = Schemas["TripSteps"];
export type LoadMoves = Schemas["LoadMoves"];
export type ProposedLoad = Schemas["ProposedLoad"];
export type Draw = Schemas["Draw"];
export type TripsView = Schemas["TripsView"];
export type TroubleLine = Schemas["TroubleLine"];
export type TroubleView = Schemas["TroubleView"];
export type TroubleAt = Schemas["TroubleAt"];
export type TroubleAnswer = Schemas["TroubleAnswer"];
export type NamedCause = Schemas["NamedCause"];
export type NextLook = Schemas["NextLook"];
export type RoadStop = Schemas["RoadStop"];
export type StopPage = Schemas["StopPage"];
export type Symptom = Schemas["Symptom"];
export type FedFrom = Schemas["FedFrom"];
export type TroubleFound = Schemas["TroubleFound"];
export type Extent = Schemas["Extent"];
export type Onset = Schemas["Onset"];
export type DangerSign = Schemas["DangerSign"];
export type DayPart = Schemas["DayPart"];

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onResponse: ({ response }) => {
    heard(response);
    heardTime(response.headers.get("date"));
  },
});

/** What the program said when it could not do it: one sentence on what is wrong, one on what was kept. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(`${problem.title} ${problem.detail}`);
  }
}

/** The home is not here any more: it was deleted, or has gone to another server. What was known of it says nothing about now. */
export const isGone = (error: unknown): boolean => error instanceof ProblemError && error.problem.status === 410;

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
