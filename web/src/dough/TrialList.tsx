import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { LoadMore } from "../shell/LoadMore";
import { useFormat } from "../units/format";

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
      <ul className="mt-1">
        {trials?.map((trial) => (
          <li key={trial.id} className="flex gap-x-4 border-t border-hair py-1.5">
            <Link className="link font-semibold" to={`/trials/${trial.id}`}>
              {trial.product}
            </Link>
            <span className="text-iron">
              {format.moment(trial.saved_at)}, {trial.saved_by}
            </span>
          </li>
        ))}
      </ul>
      <LoadMore of={list}>Earlier trials</LoadMore>
    </section>
  );
}
