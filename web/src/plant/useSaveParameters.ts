import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { record, type Entry } from "../api/outbox";
import { usePlantParameters } from "./usePlantParameters";

/** Records changes to the plant's parameters, and lets every figure be asked for again. */
export function useSaveParameters(onDone: () => void, draft?: Entry["draft"]) {
  const parameters = usePlantParameters();
  const queries = useQueryClient();
  return useMutation({
    networkMode: "always",
    mutationFn: ({ reason, ...change }: Partial<Schemas["ParametersInput"]> & { reason: string }) =>
      record<Schemas["ParametersView"]>({
        path: `/api/v1/plant/parameters/revisions/${crypto.randomUUID()}`,
        subject: draft?.key ?? "the plant's parameters",
        ...(draft && { draft }),
        label: "the plant's parameters",
        body: {
          ...change,
          number: (parameters?.revision?.number ?? 0) + 1,
          signed: { reason },
        },
      }),
    onSuccess: async () => {
      await queries.invalidateQueries();
      onDone();
    },
    // Somebody else may have been there before: what they did is looked at, and this sent anew.
    onError: () => queries.invalidateQueries({ queryKey: ["parameters"] }),
  });
}
