import { useOutletContext } from "react-router";
import type { HomeOverview } from "../api/client";

/** The home that the shell has loaded. */
export const useThisHome = () => useOutletContext<HomeOverview>();
