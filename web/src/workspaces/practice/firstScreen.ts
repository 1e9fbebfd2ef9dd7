import type { Lesson } from "../../api/client";

/** Where each lesson begins. */
export const FIRST_SCREEN: Record<Lesson, string> = {
  trace: "trace",
  measure: "loads/survey",
  work: "practice",
  fault: "trips/practice",
};
