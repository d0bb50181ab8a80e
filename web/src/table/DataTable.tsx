import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from "@tanstack/react-table";
import { unparse } from "papaparse";
import { useMemo, useState, type ReactNode } from "react";

/** What a column says of a row: to sort, search and copy by, and how it is shown. */
export interface Column<Row> {
  head: string;
  of: (row: Row) => string | number | null | undefined;
  show?: (row: Row) => ReactNode;
  /** Figures stand under one another. */
  figures?: boolean;
  className?: string;
}

interface Props<Row> {
  caption: string;
  /** None while they are under way. */
  rows: readonly Row[] | undefined;
  columns: readonly Column<Row>[];
  rowKey: (row: Row) => string;
  /** What is searched for. */
  search?: string;
  /** What can be done with a row. */
  act?: (row: Row) => ReactNode;
  empty: ReactNode;
  /** The way to rows not loaded yet; then all that are loaded are shown. */
  more?: ReactNode;
}

/** Rows shown at once. */
const PAGE = 50;

const NONE: unknown[] = [];

/** A list that sorts by any column, is searched, and goes to the clipboard as CSV. */
export function DataTable<Row>(props: Props<Row>) {
  const { caption, rows = NONE as Row[], columns, rowKey, search = "", act, empty, more } = props;
  const [sorting, sort] = useState<SortingState>([]);
  const [copied, tell] = useState<string>();
  const [most, show] = useState(PAGE);
  const defined = useMemo(
    () =>
      columns.map((column): ColumnDef<Row> => ({
        id: column.head,
        accessorFn: (row) => column.of(row) ?? undefined,
        sortUndefined: "last",
        sortingFn: column.figures ? "basic" : "text",
        meta: column,
      })),
    [columns],
  );
  // Nothing here is memoized by a compiler.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data: rows as Row[],
    columns: defined,
    state: { sorting, globalFilter: search },
    onSortingChange: sort,
    globalFilterFn: "includesString",
    getColumnCanGlobalFilter: () => true,
    getRowId: rowKey,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const found = table.getRowModel().rows;
  const shown = more === undefined ? found.slice(0, most) : found;
  const copy = async () => {
    const data = found.map((row) => columns.map((column) => column.of(row.original) ?? ""));
    const text = unparse({ fields: columns.map((column) => column.head), data });
    await navigator.clipboard.writeText(text).then(
      () => tell(found.length === 1 ? "1 row copied as CSV" : `${found.length} rows copied as CSV`),
      () => tell("The browser does not let it be copied"),
    );
  };
  const side = (figures?: boolean) => (figures ? "text-right" : "text-left");
  if (!props.rows) return null;
  return (
    <>
      <div className="mt-2 overflow-x-auto lg:overflow-visible">
        <table className="w-full">
          <caption className="sr-only">{caption}</caption>
          <thead className="sticky top-0 z-10 bg-paper">
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id} className="border-b border-ink">
                {group.headers.map(({ id, column }) => {
                  const { head, figures } = column.columnDef.meta as Column<Row>;
                  const by = column.getIsSorted();
                  return (
                    <th
                      key={id}
                      scope="col"
                      className={`py-1 pr-4 ${side(figures)}`}
                      aria-sort={by ? (by === "asc" ? "ascending" : "descending") : "none"}
                    >
                      <button
                        type="button"
                        className="hover:text-ink hover:underline"
                        title="Sort by it"
                        onClick={column.getToggleSortingHandler()}
                      >
                        {head}
                        <span aria-hidden>{by ? (by === "asc" ? " ↑" : " ↓") : ""}</span>
                      </button>
                    </th>
                  );
                })}
                {act && (
                  <th scope="col">
                    <span className="sr-only">what can be done</span>
                  </th>
                )}
              </tr>
            ))}
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={row.id} className="border-b border-hair align-top hover:bg-faint">
                {row.getVisibleCells().map((cell, at) => {
                  const { of, show, figures, className } = cell.column.columnDef
                    .meta as Column<Row>;
                  // Called, not mounted: what is ticked or typed in a cell outlives new columns.
                  const content = show ? show(row.original) : of(row.original);
                  const style = `py-1 pr-4 ${side(figures)} ${className ?? ""}`;
                  return at === 0 ? (
                    <th
                      key={cell.id}
                      scope="row"
                      className={`text-base font-normal text-ink ${style}`}
                    >
                      {content}
                    </th>
                  ) : (
                    <td key={cell.id} className={style}>
                      {content}
                    </td>
                  );
                })}
                {act && <td className="py-1 text-right whitespace-nowrap">{act(row.original)}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {shown.length === 0 && (
        <p className="mt-3">{search ? `Nothing here has “${search}”.` : empty}</p>
      )}
      {shown.length > 0 && (
        <p className="screen-only mt-2 flex flex-wrap gap-x-6 text-sm text-iron">
          <span>{found.length === 1 ? "1 row" : `${found.length} rows`}</span>
          {more}
          {more === undefined && found.length > most && (
            <button type="button" className="link" onClick={() => show(most + PAGE)}>
              {Math.min(PAGE, found.length - most)} more
            </button>
          )}
          <button type="button" className="link" onClick={() => void copy()}>
            Copy as CSV
          </button>
          <span role="status">{copied}</span>
        </p>
      )}
    </>
  );
}
