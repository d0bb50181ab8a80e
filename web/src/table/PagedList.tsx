import { useInfiniteQuery, type QueryKey } from "@tanstack/react-query";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { DataTable, type Column } from "./DataTable";

interface Props<Row, Page> {
  heading: string;
  queryKey: QueryKey;
  ask: (cursor: Partial<Schemas["Cursor"]>) => Promise<Page>;
  rows: (page: Page) => Row[];
  columns: Column<Row>[];
  rowKey: (row: Row) => string;
  /** What to do where there are none yet. */
  empty: string;
  /** The way to the page after those shown. */
  more: string;
  className?: string;
}

/** A list of records, newest first, a page at a time. */
export function PagedList<Row, Page extends { next?: Schemas["Cursor"] | null }>({
  heading,
  queryKey,
  ask,
  rows,
  columns,
  rowKey,
  empty,
  more,
  className,
}: Props<Row, Page>) {
  const id = useId();
  const list = useInfiniteQuery({
    queryKey,
    initialPageParam: {} as Partial<Schemas["Cursor"]>,
    queryFn: ({ pageParam }) => ask(pageParam),
    getNextPageParam: (page: Page) => page.next,
  });
  const found = list.data?.pages.flatMap(rows);
  return (
    <section aria-labelledby={id} className={className}>
      <h2 id={id}>{heading}</h2>
      {found?.length === 0 && <p className="mt-1 text-iron">{empty}</p>}
      {found && found.length > 0 && (
        <DataTable
          caption={heading}
          rows={found}
          columns={columns}
          rowKey={rowKey}
          empty=""
          more={
            list.hasNextPage && (
              <button
                type="button"
                className="link mt-2"
                disabled={list.isFetchingNextPage}
                onClick={() => void list.fetchNextPage()}
              >
                {more}
              </button>
            )
          }
        />
      )}
    </section>
  );
}
