import { useQuery } from "@tanstack/react-query";
import { answer, api } from "./client";
import { of } from "./queries";

/** How the chances of a trouble's causes came about, line by line. */
export const useTroubleWhy = (home: string, trouble: string) =>
  useQuery({
    queryKey: [...of(home), "trouble why", trouble],
    queryFn: () => answer(api.GET("/api/homes/{home}/trips/{trouble}/why", { params: { path: { home, trouble } } })),
  });
