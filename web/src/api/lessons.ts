import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";
import { of } from "./queries";

const KNOWN = "wayfinder-knows-panel";

/** Whether the questions about the own panel were answered on this device. */
export const knowsPanel = (): boolean => localStorage.getItem(KNOWN) === "yes";
export const nowKnowsPanel = (): void => localStorage.setItem(KNOWN, "yes");

/** The lessons in their order; they stand by the marks of every made-up house. */
export const useLessons = (home: string) =>
  useQuery({
    queryKey: [...of(home), "lessons", knowsPanel()],
    queryFn: () => answer(api.GET("/api/practice/lessons", { params: { query: { panel: knowsPanel() } } })),
  });

/** How the power comes to the home's own panels. */
export const useOwnPanels = (home: string) =>
  useQuery({
    queryKey: [...of(home), "own panels"],
    queryFn: () => answer(api.GET("/api/homes/{home}/practice/panel", { params: { path: { home } } })),
  });
