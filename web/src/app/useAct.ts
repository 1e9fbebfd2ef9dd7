import { useCallback } from "react";
import type { Fact } from "../api/client";
import { useRecord } from "../api/record";
import { useNotice } from "./useNotice";

/** Records facts and says so, with the way back; says what stands in the way. True when they were recorded. */
export function useAct(home: string): (facts: Fact[], done?: string) => Promise<boolean> {
  const record = useRecord(home);
  const say = useNotice();
  return useCallback(
    async (facts, done) => {
      try {
        const lines = await record(facts);
        if (done !== undefined) {
          say.done(done, () => {
            const strikes = lines.map((line): Fact => ({ kind: "line_struck", line }));
            record(strikes).catch(say.problem);
          });
        }
        return true;
      } catch (refused) {
        say.problem(refused);
        return false;
      }
    },
    [record, say],
  );
}
