import { useQueryClient } from "@tanstack/react-query";
import { api } from "../api/client";
import { useMe } from "../api/queries";

/**
 * Goes away from this device: the session ends, and what was asked for is forgotten here. Undefined at the machine itself, where
 * nobody had to come in.
 */
export function useSignOut(): (() => void) | undefined {
  const client = useQueryClient();
  const me = useMe();
  if (me.data === undefined || me.data.here) return undefined;
  return () => {
    void api
      .POST("/api/leave")
      .catch(() => undefined)
      .finally(async () => {
        await client.invalidateQueries({ queryKey: ["me"] });
        client.removeQueries({ predicate: (query) => query.queryKey[0] !== "me" });
      });
  };
}
