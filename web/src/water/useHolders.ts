import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { lastOfSameDough } from "../hand/sameDough";
import { useHeld } from "../shell/useHeld";

/** Who holds the water of the dough in hand, beside a reference and with water added by feel. */
export function useHolders(added: number, reference: string | undefined) {
  const { input } = useHeld();
  return useQuery({
    queryKey: ["holders", input, added, reference],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a dough in hand");
      const body = {
        hand: input,
        added_points: added,
        ...(reference && { reference_revision_id: reference }),
      };
      return answer(api.POST("/api/v1/chain/holders", { body, signal }));
    },
  });
}
