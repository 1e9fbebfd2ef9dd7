import { useCallback } from "react";
import { useNavigate } from "react-router";
import type { Job } from "../api/client";
import { whyNoSheet } from "../api/queries";
import { newId, useRecord } from "../api/record";
import { useNotice } from "./useNotice";

/** Makes a job sheet and goes to it; says why, where none can be made. */
export function useBeginJob(home: string): (work: Job) => Promise<void> {
  const record = useRecord(home);
  const say = useNotice();
  const go = useNavigate();
  return useCallback(
    async (work) => {
      try {
        const why = await whyNoSheet(home, work);
        if (why !== "") {
          say.problem(new Error(why));
          return;
        }
        const job = newId();
        await record([{ kind: "job_begun", job, work }]);
        await go(`/h/${home}/work/job/${job}`);
      } catch (refused) {
        say.problem(refused);
      }
    },
    [home, record, say, go],
  );
}
