import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { useScenarioContext } from "../shell/useScenarioContext";

/** Who holds the water of the dough in hand, beside a reference and with water added by feel. */
export function useWaterDistribution(added: number, reference: string | undefined) {
  const { input } = useScenarioContext();
  return useQuery({
    queryKey: ["holders", input, added, reference],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a dough in hand");
      const body = {
        scenario: input,
        added_points: added,
        ...(reference && { reference_revision_id: reference }),
      };
      return answer(api.POST("/api/v1/chain/water-distribution", { body, signal }));
    },
  });
}
