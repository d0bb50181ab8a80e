import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { useScenarioContext } from "../shell/useScenarioContext";

/** How the water is distributed in the selected product, beside a reference and with extra water by the operator. */
export function useWaterDistribution(added: number, reference: string | undefined) {
  const { input } = useScenarioContext();
  return useQuery({
    queryKey: ["water distribution", input, added, reference],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      const body = {
        scenario: input,
        added_points: added,
        ...(reference && { reference_revision_id: reference }),
      };
      return answer(api.POST("/api/v1/chain/water-distribution", { body, signal }));
    },
  });
}
