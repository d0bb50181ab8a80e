import type { QueryClient } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { kept } from "./edited";
import { chainOf, FLOURS, lotOf, lotsOf, productOf } from "./questions";
import { carried, readScenario, runSettingsOf, scenarioInput } from "./scenario";

/**
 * Asks at once for all the first view of an address stands on, while the code that shows it is
 * still under way. Answers with the address, the lot its product starts with in it; what fails
 * here is asked, and said, by the view.
 */
export async function askAhead(queries: QueryClient, search: string): Promise<string> {
  const scenario = readScenario(new URLSearchParams(search));
  const slug = scenario.product;
  if (!slug) return search;
  const edited = kept(slug);
  const { product, flours, lots, selected, chain } = await answer(
    api.POST("/api/v1/products/{slug}/opening", {
      params: { path: { slug } },
      body: {
        lot_id: scenario.lot,
        other_lots: scenario.others,
        run_settings: runSettingsOf(scenario),
        ...edited,
      },
    }),
  );
  queries.setQueryData(productOf(slug).queryKey, product);
  queries.setQueryData(FLOURS.queryKey, flours);
  for (const { flour_id, page } of lots) queries.setQueryData(lotsOf(flour_id).queryKey, page);
  for (const lot of selected) if (lot) queries.setQueryData(lotOf(lot.id).queryKey, lot);
  const [first, ...others] = selected;
  if (!first) return search;
  const now = { ...scenario, lot: first.id };
  const input = scenarioInput(
    now,
    product,
    first,
    others.flatMap((lot) => lot ?? []),
    edited,
  );
  if (chain && input) queries.setQueryData(chainOf(input, null).queryKey, { chain, changes: [] });
  return `?${carried(now, search)}`;
}
