import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { LoadMore } from "../shell/LoadMore";
import { DataTable, type Column } from "../table/DataTable";
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

/** Trial sets that were kept, newest first, a page at a time. */
export function TrialList() {
  const format = useFormat();
  const list = useInfiniteQuery({
    queryKey: ["trials"],
    initialPageParam: {} as Partial<Schemas["Cursor"]>,
    queryFn: ({ pageParam: query }) => answer(api.GET("/api/v1/trials", { params: { query } })),
    getNextPageParam: (page) => page.next,
  });
  const trials = list.data?.pages.flatMap((page) => page.trials);
  return (
    <section aria-labelledby="kept" className="mt-8">
      <h2 id="kept">Saved trials</h2>
      {trials?.length === 0 && (
        <p className="mt-1 text-iron">
          No trials yet. Choose changes above, compare their doughs, and save the set to print it
          for the bench.
        </p>
      )}
      {trials && trials.length > 0 && (
        <DataTable
          caption="Saved trials"
          rows={trials}
          columns={columns(format)}
          rowKey={(trial) => trial.id}
          empty=""
          more={<LoadMore of={list}>Earlier trials</LoadMore>}
        />
      )}
    </section>
  );
}
