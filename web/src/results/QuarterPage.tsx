import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ProductChoice } from "./ProductChoice";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

type Period = Schemas["BatchPeriod"];

/** What it brought: the last quarter of a year against the one before. */
export function QuarterPage() {
  const format = useFormat();
  const [search, set] = useAsked();
  const product = search.get("of") ?? undefined;
  const { data } = useQuery({
    queryKey: ["batches", "quarters", product],
    queryFn: () =>
      answer(
        api.GET("/api/v1/batch-quarters", { params: { query: { ...(product && { product }) } } }),
      ),
  });
  const rows: [string, (one: Period) => number | null | undefined, (value: number) => string][] = [
    ["Batches", (one) => one.batches, (value) => format.number(value, 0)],
    ["Scrapped", (one) => one.scrapped, (value) => format.number(value, 0)],
    [
      "Dough temperature, scatter about its target",
      (one) => one.dough_c_sd,
      (value) => format.apart(value, 2),
    ],
    [
      "Water, scatter about the plan",
      (one) => one.water_pts_sd,
      (value) => `${format.number(value, 2)} points`,
    ],
    ["Pieces rejected", (one) => one.rejected_pct, (value) => format.percent(value, 2)],
    [
      "Ingredients in rejected pieces and scrapped batches",
      (one) => one.lost_cost,
      (value) => format.money(value, 0),
    ],
  ];
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Quarter against quarter</h1>
      <div className="w-72">
        <ProductChoice product={product ?? ""} onSet={(of) => set({ of })} />
      </div>
      {data && (
        <table className="mt-4 w-full max-w-3xl">
          <thead>
            <tr>
              <th scope="col">figure</th>
              <th scope="col" className="text-right">
                three months to {format.date(data.since)}
              </th>
              <th scope="col" className="text-right">
                since then
              </th>
              <th scope="col" className="text-right">
                change
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, of, show]) => {
              const [before, last] = [of(data.before), of(data.last)];
              return (
                <tr key={name} className="border-t border-hair">
                  <th scope="row" className="py-1.5 text-base text-ink">
                    {name}
                  </th>
                  <td className="text-right">{before == null ? "–" : show(before)}</td>
                  <td className="figure text-right text-lg">{last == null ? "–" : show(last)}</td>
                  <td className="text-right text-iron">
                    {before && last != null
                      ? `${format.signed((100 * (last - before)) / before, 0)} %`
                      : ""}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <p className="mt-3 max-w-3xl text-sm text-iron">
        Costs count the ingredients whose price is on record. The scatter of one product says more
        than that of all.
      </p>
    </>
  );
}
