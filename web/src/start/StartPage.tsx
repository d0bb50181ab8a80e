import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { DropCertificate } from "../flour/DropCertificate";
import { isEdited } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { BatchList } from "./BatchList";
import { FirstSteps } from "../shell/FirstSteps";
import { LotList } from "./LotList";
import { PRODUCTS } from "../scenario/found";

/** Where a shift begins: what can be made, what came in, what is planned. */
export function StartPage() {
  const { scenario } = useScenario();
  const products = useQuery(PRODUCTS);
  return (
    <>
      <FirstSteps />
      <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[19rem_minmax(0,1fr)]">
        <div>
          <section aria-labelledby="products">
            <h1 id="products">Select a product</h1>
            <ul className="mt-3">
              {products.data?.map((product) => (
                <li key={product.slug} className="border-t border-hair">
                  <Link
                    to={`/dough?product=${product.slug}`}
                    aria-current={product.slug === scenario.product ? "true" : undefined}
                    className="block py-1 hover:bg-faint aria-[current]:border-l-4 aria-[current]:border-crust aria-[current]:pl-3"
                  >
                    <span className="font-semibold">{product.name}</span>
                    <span className="block text-sm text-iron">
                      {product.line} · from {product.flour}
                      {isEdited(product.slug) && <b className="text-crust"> · edited, not saved</b>}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
            <p className="mt-2 text-sm">
              <Link to="/dough/new" className="link">
                A new product from a template
              </Link>
            </p>
            {products.data?.length === 0 && (
              <p className="mt-2">
                No products yet. A product is a formula and a method on a line.
              </p>
            )}
          </section>
          <section aria-labelledby="new" className="mt-8">
            <h2 id="new">Receive flour</h2>
            <DropCertificate />
          </section>
        </div>
        <div>
          <BatchList />
          <LotList />
        </div>
      </div>
    </>
  );
}
