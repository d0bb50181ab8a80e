import { Link } from "react-router";
import type { Schemas } from "../api/client";
import type { Column } from "../table/DataTable";
import type { Format } from "../units/format";

/** What every list of batches begins with. */
export const batchColumns = (format: Format): Column<Schemas["BatchSummary"]>[] => [
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
];
