import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { LoadMore } from "../shell/LoadMore";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";

const columns = (format: Format): Column<Schemas["BatchSummary"]>[] => [
  {
    head: "product",
    of: (batch) => batch.product,
    show: (batch) => (
      <Link className="link font-semibold" to={`/batches/${batch.id}`}>
        {batch.product}
      </Link>
    ),
  },
  {
    head: "planned for",
    of: (batch) => batch.planned_for,
    show: (batch) => format.moment(batch.planned_for),
  },
  { head: "lot", of: (batch) => batch.lot },
  { head: "flour", of: (batch) => batch.flour },
  { head: "planned by", of: (batch) => batch.saved_by },
];

/** Planned batches, newest first, a page at a time. */
export function BatchList() {
  const format = useFormat();
  const list = useInfiniteQuery({
    queryKey: ["batches"],
    initialPageParam: {} as Partial<Schemas["Cursor"]>,
    queryFn: ({ pageParam: query }) => answer(api.GET("/api/v1/batches", { params: { query } })),
    getNextPageParam: (page) => page.next,
  });
  const batches = list.data?.pages.flatMap((page) => page.batches);
  return (
    <section aria-labelledby="planned">
      <h2 id="planned">Planned batches</h2>
      {batches?.length === 0 && (
        <p className="mt-1 text-iron">
          No batches planned yet. Select a product, go to Floor, and plan its mixing sheet.
        </p>
      )}
      {batches && batches.length > 0 && (
        <DataTable
          caption="Planned batches"
          rows={batches}
          columns={columns(format)}
          rowKey={(batch) => batch.id}
          empty=""
          more={<LoadMore of={list}>Earlier batches</LoadMore>}
        />
      )}
    </section>
  );
}
