import { useCallback } from "react";
import type { Wish } from "../../../api/client";
import { propose } from "../../../api/queries";
import { useAct } from "../../../app/useAct";
import { useNotice } from "../../../app/useNotice";

/** Works out what a wish would record, records it, and says so with the way back. */
export function useWish(home: string): (wish: Wish) => Promise<boolean> {
  const act = useAct(home);
  const say = useNotice();
  return useCallback(
    async (wish) => {
      try {
        const proposal = await propose(home, wish);
        return await act(proposal.facts, proposal.said);
      } catch (refused) {
        say.problem(refused);
        return false;
      }
    },
    [act, home, say],
  );
}
