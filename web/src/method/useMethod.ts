import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { useHand, type MethodDraft } from "../hand/HandProvider";
import { useHeld } from "../shell/useHeld";
import { asDraft } from "./method";

/** The method in hand, edited or as recorded, and the way to edit it. */
export function useMethod() {
  const { method: draft, editMethod } = useHand();
  const { product } = useHeld();
  const now: MethodDraft | undefined = draft ?? (product && asDraft(product.method));
  return {
    method: now,
    edited: draft !== undefined,
    set: (change: Partial<MethodDraft>) => now && editMethod({ ...now, ...change }),
    putBack: () => editMethod(undefined),
  };
}

/** What the method says of the dough in hand. */
export function useGuide() {
  const { input } = useHeld();
  return useQuery({
    queryKey: ["method guide", input],
    enabled: input !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a dough in hand");
      return answer(api.POST("/api/v1/chain/method", { body: input, signal }));
    },
  }).data;
}
