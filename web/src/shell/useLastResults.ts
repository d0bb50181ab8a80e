import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";

/** What the last batches of a product came to. */
export interface LastResults {
  bake?: Schemas["BatchSummary"] | undefined;
  score?: Schemas["BatchSummary"] | undefined;
}

/** The last bake and the last score of a product, or of any where none is chosen. */
export function useLastResults(product: string | undefined): LastResults {
  const { data } = useQuery({
    queryKey: ["batches", "last", product],
    staleTime: 60_000,
    queryFn: () =>
      answer(
        api.GET("/api/v1/batches", {
          params: { query: { state: "finished", ...(product && { product }) } },
        }),
      ),
  });
  return {
    bake: data?.batches.find((batch) => batch.arrival_pct != null),
    score: data?.batches.find((batch) => batch.score != null),
  };
}
