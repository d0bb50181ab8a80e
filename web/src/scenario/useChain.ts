import { useQueries, useQuery } from "@tanstack/react-query";
import { isFinal, type Refused, type Schemas } from "../api/client";
import type { Draft } from "./edited";
import { chainOf, lotOf, lotsOf, otherFlours, productOf } from "./questions";
import { lastOfSameDough } from "./sameDough";
import { scenarioInput } from "./scenario";
import { useScenario } from "./ScenarioProvider";
import { useFlours } from "./useFlours";

export const useProduct = (slug: string | null) =>
  useQuery({ ...productOf(slug ?? ""), enabled: slug !== null });

export const useLot = (id: string | null) => useQuery({ ...lotOf(id ?? ""), enabled: id !== null });

export const useLotsOf = (flourId: string | undefined) =>
  useQuery({ ...lotsOf(flourId ?? ""), enabled: flourId !== undefined });

/** The lots chosen of the formula's other flours, and what else there is of each. */
export function useOthers(
  product: Schemas["ProductView"] | undefined,
  draft: Draft | undefined,
  chosen: string[],
): OtherInHand[] | undefined {
  const flours = useFlours();
  const wanted = otherFlours(product, draft, flours);
  const lists = useQueries({ queries: wanted.map((flour) => lotsOf(flour.id)) }).map(
    (list) => list.data,
  );
  // A lot that was chosen may be older than those the list begins with.
  const picked = useQueries({ queries: chosen.map(lotOf) });
  const asking = picked.some((one) => one.isPending);
  const ids = lists.map((list, at) => {
    const here = picked.find((one) => one.data?.flour.id === wanted[at]?.id)?.data?.id;
    return here ?? (asking ? null : (list?.usual ?? null));
  });
  const views = useQueries({
    queries: ids.map((id, at) => ({ ...lotOf(id ?? `of ${at}`), enabled: id !== null })),
  }).map((view) => view.data);
  // Which flours there are is not known before the list of them has come.
  if ((draft?.flours ?? product?.formula.flours ?? []).length > 1 && !flours) return undefined;
  return wanted.map((flour, at) => ({
    flour,
    lots: lists[at]?.lots ?? [],
    usual: lists[at]?.usual ?? null,
    known: lists[at] !== undefined,
    lot: views[at],
  }));
}

/** Another flour of the formula with its selected lot. */
export interface OtherInHand {
  flour: Schemas["FlourView"];
  lots: Schemas["LotRow"][];
  /** The lot it is taken from where nobody chose. */
  usual: string | null;
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
    ...chainOf(input, inputBefore),
    placeholderData: lastOfSameDough(input),
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
