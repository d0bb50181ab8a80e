import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { LoadMore } from "../shell/LoadMore";
import { useFormat } from "../units/format";

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
    <section aria-labelledby="planned" className="">
      <h2 id="planned">Planned batches</h2>
      {batches?.length === 0 && (
        <p className="mt-1 text-iron">
          No batches planned yet. Select a product, go to Floor, and plan its mixing sheet.
        </p>
      )}
      <ul className="mt-1">
        {batches?.map((batch) => (
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
      <LoadMore of={list}>Earlier batches</LoadMore>
    </section>
  );
}
