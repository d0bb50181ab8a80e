import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { DataTable, type Column } from "../table/DataTable";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";
import { PRODUCTS } from "../scenario/found";

const COLUMNS: Column<Schemas["ProductRow"]>[] = [
  {
    head: "product",
    of: (one) => one.name,
    show: (one) => (
      <Link className="link font-semibold" to={`/dough?product=${one.slug}`}>
        {one.name}
      </Link>
    ),
  },
  { head: "flour", of: (one) => one.flour },
  { head: "line", of: (one) => one.line },
];

/** What the plant makes. */
export function ProductsPage() {
  const [text] = useSearched();
  const products = useQuery(PRODUCTS).data;
  return (
    <>
      <PlantTabs />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1>Products</h1>
        <Link className="act" to="/dough/new">
          New product
        </Link>
      </div>
      <div className="mt-3">
        <SearchField of="products" />
      </div>
      <DataTable
        caption="Products"
        rows={products}
        columns={COLUMNS}
        rowKey={(one) => one.slug}
        search={text}
        empty="No products yet. A product is a formula and a method on a line."
        act={(one) => (
          <>
            <Link className="link text-sm" to={`/dough/revisions?product=${one.slug}`}>
              History
            </Link>
          </>
        )}
      />
    </>
  );
}
