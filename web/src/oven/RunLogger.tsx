import { useMutation, useQueryClient } from "@tanstack/react-query";
import { record } from "../api/outbox";
import { Faults } from "../form/Faults";

/** Sends the simulated logger through the oven with a batch. */
export function RunLogger({ batch, onDone }: { batch: string; onDone: (id: string) => void }) {
  const queries = useQueryClient();
  const run = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const id = crypto.randomUUID();
      await record({
        path: `/api/v1/batches/${batch}/oven-logger/${id}`,
        label: "bake trace",
        body: {},
      });
      return id;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries({ queryKey: ["batches"] });
      onDone(id);
    },
  });
  return (
    <section aria-labelledby="run-logger">
      <h2 id="run-logger">No logger at hand</h2>
      <p className="text-sm text-iron">
        The simulated logger goes through the oven with five probes and writes every half minute.
      </p>
      <Faults error={run.error}>
        <button
          type="button"
          className="act mt-2"
          disabled={run.isPending}
          onClick={() => run.mutate()}
        >
          Run the simulated logger
        </button>
      </Faults>
    </section>
  );
}
