import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, isFinal, type Refused, type Schemas } from "../api/client";
import { handInput } from "./hand";
import { useHand } from "./HandProvider";

export function useProduct(slug: string | null) {
  return useQuery({
    queryKey: ["product", slug],
    enabled: slug !== null,
    queryFn: () =>
      answer(api.GET("/api/v1/products/{slug}", { params: { path: { slug: slug ?? "" } } })),
  });
}

export function useLot(id: string | null) {
  return useQuery({
    queryKey: ["lot", id],
    enabled: id !== null,
    queryFn: () =>
      answer(api.GET("/api/v1/lots/{lot_id}", { params: { path: { lot_id: id ?? "" } } })),
  });
}

export function useLotsOf(flourId: string | undefined) {
  return useQuery({
    queryKey: ["lots of", flourId],
    enabled: flourId !== undefined,
    queryFn: () =>
      answer(api.GET("/api/v1/lots", { params: { query: { flour_id: flourId ?? "" } } })),
  });
}

export interface ChainInHand {
  product: Schemas["ProductView"] | undefined;
  lot: Schemas["LotView"] | undefined;
  /** What the server is asked, for saving the same. */
  input: Schemas["HandInput"] | null;
  chain: Schemas["Chain"] | undefined;
  moves: Schemas["Move"][];
  /** What cannot be used, by field. */
  refused: Refused | undefined;
  /** No answer at all. */
  lost: boolean;
}

/** The whole chain for the dough in hand, and what moved since the last change. */
export function useChain(): ChainInHand {
  const { hand, lines, before } = useHand();
  const product = useProduct(hand.product).data;
  const lot = useLot(hand.lot).data;
  const lotBefore = useLot(before?.hand.lot ?? null).data;
  const input = product && lot ? handInput(hand, product, lot, lines) : null;
  const comparable = before && product && lotBefore && before.hand.product === hand.product;
  const inputBefore = comparable ? handInput(before.hand, product, lotBefore, before.lines) : null;
  const asked = useQuery({
    queryKey: ["chain", input, inputBefore],
    enabled: input !== null,
    placeholderData: keepPreviousData,
    retry: (count, error) => !isFinal(error) && count < 2,
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a dough in hand");
      const body: Schemas["WhatIf"] = inputBefore
        ? { now: input, before: inputBefore }
        : { now: input };
      return answer(api.POST("/api/v1/chain", { body, signal }));
    },
  });
  return {
    product,
    lot,
    input,
    chain: input ? asked.data?.chain : undefined,
    moves: input ? (asked.data?.moves ?? []) : [],
    refused: isFinal(asked.error) ? (asked.error as Refused) : undefined,
    lost: asked.isError && !isFinal(asked.error),
  };
}
