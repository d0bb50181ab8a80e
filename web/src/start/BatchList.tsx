import { answer, api, type Schemas } from "../api/client";
import type { Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { batchColumns } from "./batchColumns";
import { useFormat, type Format } from "../units/format";

const columns = (format: Format): Column<Schemas["BatchSummary"]>[] => [
  ...batchColumns(format),
  { head: "lot", of: (batch) => batch.lot },
  { head: "flour", of: (batch) => batch.flour },
  { head: "planned by", of: (batch) => batch.saved_by },
];

/** Planned batches. */
export function BatchList() {
  const format = useFormat();
  return (
    <PagedList
      heading="Planned batches"
      queryKey={["batches", "planned"]}
      ask={(query) =>
        answer(api.GET("/api/v1/batches", { params: { query: { ...query, state: "planned" } } }))
      }
      rows={(page) => page.batches}
      columns={columns(format)}
      rowKey={(batch) => batch.id}
      empty="No batches planned yet. Select a product, go to Floor, and plan its mixing sheet."
      more="Earlier batches"
    />
  );
}
