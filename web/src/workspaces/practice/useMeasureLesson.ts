import { useOutletContext } from "react-router";
import type { HomeOverview } from "../../api/client";

/** The id of this home where it is a made-up house that is to be measured; a helper is not told of one. */
export function useMeasureLesson(): string | null {
  const home = useOutletContext<HomeOverview | undefined>();
  return home?.practice?.lesson === "measure" ? home.id : null;
}
