import { Fragment, type ReactNode } from "react";

/** One thing that is compared: a cell for each column. */
export interface CompareRow {
  key: string;
  label: ReactNode;
  cells: ReactNode[];
  /** Whether it differs; by its cells' texts if left out. */
  differs?: boolean;
  /** Sentences, not figures. */
  prose?: boolean;
}

interface Props {
  caption: string;
  /** The columns, the one the others are held against first. */
  heads: { key: string; head: ReactNode }[];
  /** Rows that belong together, each under a head of its own if it has one. */
  groups: { title?: ReactNode; rows: CompareRow[]; inOrder?: boolean }[];
}

const differs = ({ differs, cells }: CompareRow) =>
  differs ?? cells.some((cell) => typeof cell === "string" && cell !== cells[0]);

/** Things side by side, what differs first; on paper a difference is underlined. */
export function CompareTable({ caption, heads, groups }: Props) {
  return (
    <div className="overflow-x-auto">
      <table className="mt-3 w-full border-collapse" aria-label={caption}>
        <thead>
          <tr className="border-b-2 border-ink align-bottom">
            <td />
            {heads.map(({ key, head }) => (
              <th scope="col" key={key} className="px-2 py-1 text-sm text-ink">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {groups.map(({ title, rows, inOrder }, at) => (
            <Fragment key={at}>
              {title && (
                <tr className="border-y-2 border-ink">
                  <th scope="col" colSpan={heads.length + 1} className="py-1 text-ink">
                    {title}
                  </th>
                </tr>
              )}
              {(inOrder ? rows : firstThose(rows)).map((row) => (
                <Row key={row.key} row={row} />
              ))}
            </Fragment>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const firstThose = (rows: CompareRow[]) => [
  ...rows.filter(differs),
  ...rows.filter((row) => !differs(row)),
];

function Row({ row }: { row: CompareRow }) {
  const [first] = row.cells;
  const same = !differs(row);
  return (
    <tr className={`border-b border-hair align-top ${same ? "text-iron" : ""}`}>
      <th scope="row" className="py-1 pr-3 text-sm font-normal text-inherit">
        {row.label}
      </th>
      {row.cells.map((cell, at) => {
        const another = !same && at > 0 && typeof cell === "string" && cell !== first;
        return (
          <td
            key={at}
            className={`px-2 py-1 ${row.prose ? "text-sm" : "figure"} ${another ? "font-semibold text-crust print:underline" : ""}`}
          >
            {cell}
          </td>
        );
      })}
    </tr>
  );
}
