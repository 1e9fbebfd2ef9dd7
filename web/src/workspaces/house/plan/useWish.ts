import { useCallback } from "react";
import type { Wish } from "../../../api/client";
import { outbox } from "../../../api/outbox";
import { propose } from "../../../api/queries";
import { useAct } from "../../../app/useAct";
import { useNotice } from "../../../app/useNotice";

/** The wish before this one: it is recorded before the next is worked out, so that two quick taps do not get one name. */
let before: Promise<void> = Promise.resolve();

/** Works out what a wish would record, records it, and says so with the way back. */
export function useWish(home: string): (wish: Wish) => Promise<boolean> {
  const act = useAct(home);
  const say = useNotice();
  return useCallback(
    (wish) => {
      const done = before.then(async () => {
        try {
          const proposal = await propose(home, wish);
          return await act(proposal.facts, proposal.said);
        } catch (refused) {
          say.problem(refused);
          return false;
        }
      });
      before = before.then(() => outbox.doneOrStuck(done));
      return done;
    },
    [act, home, say],
  );
}
