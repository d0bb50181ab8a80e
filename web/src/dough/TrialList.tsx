import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import type { Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { useFormat, type Format } from "../units/format";

const columns = (format: Format): Column<Schemas["TrialRow"]>[] => [
  {
    head: "product",
    of: (trial) => trial.product,
    show: (trial) => (
      <Link className="link font-semibold" to={`/trials/${trial.id}`}>
        {trial.product}
      </Link>
    ),
  },
  {
    head: "saved",
    of: (trial) => trial.saved_at,
    show: (trial) => format.moment(trial.saved_at),
  },
  { head: "by", of: (trial) => trial.saved_by },
];

/** Trial sets that were kept. */
export function TrialList() {
  const format = useFormat();
  return (
    <PagedList
      heading="Saved trials"
      className="mt-8"
      queryKey={["trials"]}
      ask={(query) => answer(api.GET("/api/v1/trials", { params: { query } }))}
      rows={(page) => page.trials}
      columns={columns(format)}
      rowKey={(trial) => trial.id}
      empty="No trials yet. Choose changes above, compare their doughs, and save the set to print it for the bench."
      more="Earlier trials"
    />
  );
}
