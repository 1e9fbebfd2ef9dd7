import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";
import { of } from "./queries";

/** What is seen where the next look for the fault is made; nothing is asked outside such a house. */
export const useFaultSeen = (home: string, drawnForIt: boolean) =>
  useQuery({
    queryKey: [...of(home), "fault seen"],
    enabled: drawnForIt,
    queryFn: () => answer(api.GET("/api/homes/{home}/practice/fault", { params: { path: { home } } })),
  });

/** How good the search for the fault is. */
export const useFaultMarks = (home: string, reveal: boolean) =>
  useQuery({
    queryKey: [...of(home), "fault marks", reveal],
    placeholderData: (before) => before,
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/practice/fault/marks", { params: { path: { home }, query: { reveal } } })),
  });
