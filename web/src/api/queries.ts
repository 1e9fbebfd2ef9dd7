import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "./client";

const of = (home: string) => ["home", home] as const;

export const useHealth = () =>
  useQuery({ queryKey: ["health"], queryFn: () => answer(api.GET("/api/health")), staleTime: Infinity });

export const useHomes = () => useQuery({ queryKey: ["homes"], queryFn: () => answer(api.GET("/api/homes")) });

export const useHome = (home: string) =>
  useQuery({
    queryKey: [...of(home), "overview"],
    queryFn: () => answer(api.GET("/api/homes/{home}", { params: { path: { home } } })),
  });

export const useTrace = (home: string) =>
  useQuery({
    queryKey: [...of(home), "trace"],
    queryFn: () => answer(api.GET("/api/homes/{home}/trace", { params: { path: { home } } })),
  });

export const useDirectory = (home: string) =>
  useQuery({
    queryKey: [...of(home), "directory"],
    queryFn: () =>
      answer(api.GET("/api/homes/{home}/directory", { params: { path: { home }, query: { date: today() } } })),
  });

export const useLogbook = (home: string, before: number | null) =>
  useQuery({
    queryKey: [...of(home), "logbook", before],
    queryFn: () => {
      const query = before === null ? {} : { before };
      return answer(api.GET("/api/homes/{home}/logbook", { params: { path: { home }, query } }));
    },
  });

export const useEvidence = (home: string, point: string) =>
  useQuery({
    queryKey: [...of(home), "evidence", point],
    queryFn: () => answer(api.GET("/api/homes/{home}/points/{point}/evidence", { params: { path: { home, point } } })),
  });

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
    const moved = () => {
      void client.invalidateQueries({ queryKey: of(home) });
      void client.invalidateQueries({ queryKey: ["homes"] });
    };
    source.addEventListener("moved", moved);
    source.addEventListener("open", () => setLive(true));
    source.addEventListener("error", () => setLive(false));
    return () => source.close();
  }, [client, home]);
  return live;
}
