import { QueryClient } from "@tanstack/react-query";
import { expect, test } from "vitest";
import { askAhead } from "../src/scenario/askAhead";

const asked = async (search: string) => {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } });
  const address = await askAhead(queries, search);
  const chains = queries.getQueriesData<{ chain: { error: unknown } }>({ queryKey: ["chain"] });
  return { address: new URLSearchParams(address), chains: chains.map(([, data]) => data) };
};

test("an address without a lot is answered with the one its product starts with, and its chain", async () => {
  for (const product of ["deck-roll-60", "kesh-dark"]) {
    const { address, chains } = await asked(`?product=${product}&tap=18&before=x`);
    expect(address.get("lot"), product).toMatch(/^[0-9a-f-]{36}$/);
    expect([address.get("tap"), address.get("before")]).toEqual(["18", "x"]);
    expect(chains, "one chain, with what is set of it").toHaveLength(1);
    expect(chains[0]?.chain.error ?? null).toBeNull();
  }
});

test("an address without a product stays as it is, and what is gone is not made up", async () => {
  const { address, chains } = await asked("?q=emmer");
  expect([address.toString(), chains]).toEqual(["q=emmer", []]);
  await expect(asked("?product=no-such-loaf")).rejects.toThrow(/this product/);
});
