import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { DropCertificate } from "../flour/DropCertificate";
import { useHand } from "../hand/HandProvider";
import { VERDICT } from "../shell/verdict";
import { useFormat } from "../units/format";

/** Where a shift begins: what can be made, what came in, what is planned. */
export function StartPage() {
  const format = useFormat();
  const { hand } = useHand();
  const products = useQuery({
    queryKey: ["products"],
    queryFn: () => answer(api.GET("/api/v1/products")),
  });
  const lots = useQuery({ queryKey: ["lots"], queryFn: () => answer(api.GET("/api/v1/lots")) });
  const batches = useQuery({
    queryKey: ["batches"],
    queryFn: () => answer(api.GET("/api/v1/batches")),
  });
  return (
    <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[19rem_minmax(0,1fr)]">
      <div>
        <section aria-labelledby="products">
          <h1 id="products">Take a dough in hand</h1>
          <ul className="mt-3">
            {products.data?.map((product) => (
              <li key={product.slug} className="border-t border-hair">
                <Link
                  to={`/dough?product=${product.slug}`}
                  aria-current={product.slug === hand.product ? "true" : undefined}
                  className="block py-2 hover:bg-faint aria-[current]:border-l-4 aria-[current]:border-crust aria-[current]:pl-3"
                >
                  <span className="text-lg font-semibold">{product.name}</span>
                  <span className="block text-sm text-iron">
                    {product.line} · from {product.flour}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
          {products.data?.length === 0 && (
            <p className="mt-2">
              No products yet. A product is a formula and a method on a line; start with the demo
              plant, <code>make demo</code>, to see some.
            </p>
          )}
        </section>
        <section aria-labelledby="new" className="mt-8">
          <h2 id="new">Flour came in</h2>
          <DropCertificate />
        </section>
      </div>
      <div>
        <section aria-labelledby="lots">
          <h2 id="lots">Lots, newest first</h2>
          <table className="mt-1 w-full">
            <thead>
              <tr className="border-b border-ink">
                <th scope="col" className="py-1">
                  lot
                </th>
                <th scope="col">flour</th>
                <th scope="col">milled</th>
                <th scope="col" className="text-right">
                  tonnes
                </th>
                <th scope="col" className="pl-6">
                  specification
                </th>
              </tr>
            </thead>
            <tbody>
              {lots.data?.lots.map((lot) => (
                <tr key={lot.id} className="border-b border-hair hover:bg-faint">
                  <td className="py-1">
                    <Link className="link font-semibold" to={`/flour?lot=${lot.id}`}>
                      {lot.code}
                    </Link>
                  </td>
                  <td>{lot.flour}</td>
                  <td>{lot.milled_on && format.date(lot.milled_on)}</td>
                  <td className="text-right">{lot.tonnes != null && format.number(lot.tonnes)}</td>
                  <td className={`pl-6 ${lot.verdict ? VERDICT[lot.verdict].colour : ""}`}>
                    {lot.verdict && `${VERDICT[lot.verdict].mark} ${VERDICT[lot.verdict].word}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {lots.data?.lots.length === 0 && (
            <p className="mt-2">No lots yet. Drop a mill's certificate to take one in.</p>
          )}
        </section>
        <section aria-labelledby="planned" className="mt-8">
          <h2 id="planned">Planned batches</h2>
          {batches.data?.batches.length === 0 ? (
            <p className="mt-1 text-iron">
              None yet. Take a dough in hand, follow the chain to the floor, and plan its mixing
              sheet.
            </p>
          ) : (
            <ul className="mt-1">
              {batches.data?.batches.map((batch) => (
                <li key={batch.id} className="flex flex-wrap gap-x-4 border-t border-hair py-1.5">
                  <Link className="link font-semibold" to={`/batches/${batch.id}`}>
                    {batch.product}
                  </Link>
                  <span>{format.moment(batch.planned_for)}</span>
                  <span className="text-iron">
                    from {batch.lot}, planned by {batch.saved_by}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </section>
      </div>
    </div>
  );
}
