import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { keptWhenLost } from "../api/keptAnswers";
import { RecoveryWays } from "../figures/RecoveryWays";
import { useFormat } from "../units/format";
import { currentOf } from "./NextAction";
import type { Run } from "./run";

/** What to do with a batch that is held or lies too long, with its amounts. */
export function RunRecovery({ run }: { run: Run }) {
  const format = useFormat();
  const stage = currentOf(run);
  const times = run.report.times.find((one) => one.stage === stage?.stage);
  const held = run.state === "held";
  const { data } = useQuery({
    queryKey: ["batch run", run.id, "recovery"],
    enabled: held || (run.state === "running" && Boolean(times?.beyond_limit)),
    networkMode: "always",
    retry: false,
    queryFn: () =>
      keptWhenLost(`recovery ${run.id}`, () =>
        answer(
          api.GET("/api/v1/batches/{batch_id}/recovery", {
            params: { path: { batch_id: run.id } },
          }),
        ),
      ),
  });
  const delayed = data?.delayed;
  if (!held && !(times?.beyond_limit && delayed)) return null;
  return (
    <section className="mt-6 text-lg" aria-label="Ways out">
      <h2 className="text-xl">What to do with it</h2>
      {delayed ? (
        <>
          <p>
            {delayed.stage} lies {format.minutes(Math.round(delayed.waits_min))} longer than planned
            {delayed.past_min > 0 && (
              <b className="text-stop">
                , {format.minutes(Math.round(delayed.past_min))} beyond its limit
              </b>
            )}
            .
          </p>
          <RecoveryWays one={delayed} />
        </>
      ) : (
        <p>
          It is within the time that was planned for it
          {times && `; ${stage?.label} may last until ${format.time(times.limit_at)}`}.
        </p>
      )}
    </section>
  );
}
