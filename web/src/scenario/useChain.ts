import { useQueries, useQuery } from "@tanstack/react-query";
import { answer, api, isFinal, type Refused, type Schemas } from "../api/client";
import { scenarioInput } from "./scenario";
import { lastOfSameDough } from "./sameDough";
import { useFlours } from "./useFlours";
import { useScenario, type Draft } from "./ScenarioProvider";

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

/** The lot a flour is taken from where nobody chose: its newest that may be planned. */
export const usualLot = (lots: Schemas["LotRow"][] | undefined) =>
  lots?.find((lot) => !lot.status.barred);

/** The lots chosen of the formula's other flours, and what else there is of each. */
export function useOthers(
  product: Schemas["ProductView"] | undefined,
  draft: Draft | undefined,
  chosen: string[],
): OtherInHand[] | undefined {
  const shares = draft?.flours ?? product?.formula.flours ?? [];
  const flours = useFlours();
  const wanted = shares
    .slice(1)
    .flatMap((share) => flours?.find((flour) => flour.name === share.name) ?? []);
  const lists = useQueries({
    queries: wanted.map((flour) => ({
      queryKey: ["lots of", flour.id],
      queryFn: () => answer(api.GET("/api/v1/lots", { params: { query: { flour_id: flour.id } } })),
    })),
  }).map((list) => list.data?.lots);
  // A lot that was chosen may be older than those the list begins with.
  const picked = useQueries({
    queries: chosen.map((id) => ({
      queryKey: ["lot", id],
      queryFn: () => answer(api.GET("/api/v1/lots/{lot_id}", { params: { path: { lot_id: id } } })),
    })),
  });
  const asking = picked.some((one) => one.isPending);
  const ids = lists.map((lots, at) => {
    const here = picked.find((one) => one.data?.flour.id === wanted[at]?.id)?.data?.id;
    return here ?? (asking ? null : (usualLot(lots)?.id ?? null));
  });
  const views = useQueries({
    queries: ids.map((id, at) => ({
      queryKey: ["lot", id ?? `of ${at}`],
      enabled: id !== null,
      queryFn: () =>
        answer(api.GET("/api/v1/lots/{lot_id}", { params: { path: { lot_id: id ?? "" } } })),
    })),
  }).map((view) => view.data);
  // Which flours there are is not known before the list of them has come.
  if (shares.length > 1 && !flours) return undefined;
  return wanted.map((flour, at) => ({
    flour,
    lots: lists[at] ?? [],
    known: lists[at] !== undefined,
    lot: views[at],
  }));
}

/** Another flour of the formula with its selected lot. */
export interface OtherInHand {
  flour: Schemas["FlourView"];
  lots: Schemas["LotRow"][];
  /** Its lots have come. */
  known: boolean;
  lot: Schemas["LotView"] | undefined;
}

/** Every lot, once all have come. */
const inHand = (others: OtherInHand[] | undefined) => {
  const lots = others?.flatMap((other) => other.lot ?? []);
  return lots?.length === others?.length ? lots : undefined;
};

export interface ChainInHand {
  product: Schemas["ProductView"] | undefined;
  lot: Schemas["LotView"] | undefined;
  others: OtherInHand[];
  /** What the server is asked, for saving the same. */
  input: Schemas["ScenarioInput"] | null;
  chain: Schemas["Chain"] | undefined;
  /** The process as it is made tonight, edited or not. */
  process: string;
  changes: Schemas["FigureChange"][];
  /** What cannot be used, by field. */
  refused: Refused | undefined;
  /** No answer at all. */
  lost: boolean;
}

/** The whole chain for the selected product, and what moved since the last change. */
export function useChain(): ChainInHand {
  const { scenario, draft, method, before } = useScenario();
  const product = useProduct(scenario.product).data;
  const lot = useLot(scenario.lot).data;
  const lotBefore = useLot(before?.scenario.lot ?? null).data;
  const others = useOthers(product, draft, scenario.others);
  const othersBefore = inHand(useOthers(product, before?.draft, before?.scenario.others ?? []));
  const lots = inHand(others);
  const input =
    product && lot && lots ? scenarioInput(scenario, product, lot, lots, { draft, method }) : null;
  const comparable =
    before && product && lotBefore && othersBefore && before.scenario.product === scenario.product;
  const inputBefore = comparable
    ? scenarioInput(before.scenario, product, lotBefore, othersBefore, before)
    : null;
  const asked = useQuery({
    queryKey: ["chain", input, inputBefore],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    retry: (count, error) => !isFinal(error) && count < 2,
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      const body: Schemas["WhatIf"] = inputBefore
        ? { now: input, before: inputBefore }
        : { now: input };
      return answer(api.POST("/api/v1/chain", { body, signal }));
    },
  });
  const chain = input ? asked.data?.chain : undefined;
  return {
    product,
    lot,
    others: others ?? [],
    input,
    chain,
    process: chain?.method.process_label ?? product?.method.process_label ?? "",
    changes: input ? (asked.data?.changes ?? []) : [],
    refused: isFinal(asked.error) ? (asked.error as Refused) : undefined,
    lost: asked.isError && !isFinal(asked.error),
  };
}
