import type { QueryClient } from "@tanstack/react-query";
import { kept } from "./edited";
import { chainOf, FLOURS, lotOf, lotsOf, otherFlours, productOf, usualLot } from "./questions";
import { carried, readScenario, scenarioInput } from "./scenario";

/**
 * Asks for the chain an address stands for while the code that shows it is still under way.
 * Answers with the address, the lot its product starts with in it; what fails here is asked, and
 * said, by the view.
 */
export async function askAhead(queries: QueryClient, search: string): Promise<string> {
  const scenario = readScenario(new URLSearchParams(search));
  if (!scenario.product) return search;
  const edited = kept(scenario.product);
  const [product, flours, ...chosen] = await Promise.all([
    queries.fetchQuery(productOf(scenario.product)),
    queries.fetchQuery(FLOURS),
    ...[scenario.lot ?? [], scenario.others].flat().map(lot),
  ]);
  const first = scenario.lot ?? (await usual(product.flour.id));
  if (!first) return search;
  const others = await Promise.all(
    otherFlours(product, edited.draft, flours).map(async (flour) => {
      const here = chosen.find((one) => one.flour.id === flour.id);
      const id = here?.id ?? (await usual(flour.id));
      return id ? lot(id) : [];
    }),
  );
  const now = { ...scenario, lot: first };
  const input = scenarioInput(now, product, await lot(first), others.flat(), edited);
  if (input) await queries.prefetchQuery(chainOf(input, null));
  return `?${carried(now, search)}`;

  function lot(id: string) {
    return queries.fetchQuery(lotOf(id));
  }
  async function usual(flour: string) {
    const { lots } = await queries.fetchQuery(lotsOf(flour));
    return usualLot(lots)?.id;
  }
}
