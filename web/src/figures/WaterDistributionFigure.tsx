import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

const HELD: { key: keyof Schemas["WaterShares"]; word: string; fill: string }[] = [
  { key: "protein_pct", word: "protein", fill: "var(--color-moss)" },
  { key: "pentosan_pct", word: "pentosan", fill: "var(--color-iron)" },
  { key: "intact_pct", word: "intact starch", fill: "var(--color-hair)" },
  { key: "damaged_pct", word: "damaged starch", fill: "var(--color-crust)" },
  { key: "free_pct", word: "free water", fill: "var(--color-water)" },
];

/** A share this wide has room for its word. */
const WIDE_PCT = 8;

interface Row {
  name: string;
  shares: Schemas["WaterShares"];
}

/** The shares one after another, each from where the one before ends. */
function laidOut(shares: Schemas["WaterShares"]) {
  let end = 0;
  return HELD.map((held) => {
    const start = end;
    end += shares[held.key];
    return { ...held, start, share: shares[held.key] };
  });
}

/** How a dough's water is distributed, a row each, the same widths meaning the same share. */
export function WaterDistributionFigure({ rows }: { rows: Row[] }) {
  const format = useFormat();
  return (
    <figure aria-label="Water distribution">
      <div aria-hidden className="space-y-3">
        {rows.map((row) => (
          <div key={row.name}>
            <p className="text-sm">{row.name}</p>
            <div className="relative">
              <svg
                viewBox="0 0 100 8"
                preserveAspectRatio="none"
                className="block h-9 w-full border border-ink"
              >
                {laidOut(row.shares).map(({ key, fill, start, share }) => (
                  <rect
                    key={key}
                    x={start}
                    width={share}
                    height="8"
                    fill={fill}
                    stroke="var(--color-sheet)"
                    strokeWidth="0.15"
                  />
                ))}
              </svg>
              {/* What is too narrow for a word stands in the table below. */}
              {laidOut(row.shares)
                .filter(({ share }) => share >= WIDE_PCT)
                .map(({ key, word, start, share }) => (
                  <span
                    key={key}
                    className="absolute top-1.5 truncate bg-sheet px-1 text-sm text-ink"
                    style={{ left: `${start + 0.6}%`, maxWidth: `${share - 1.2}%` }}
                  >
                    {word}
                  </span>
                ))}
            </div>
          </div>
        ))}
      </div>
      <table className="mt-3 w-full max-w-3xl">
        <caption className="sr-only">Shares of the dough's water</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              held by
            </th>
            {rows.map((row) => (
              <th scope="col" key={row.name} className="text-right">
                {row.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {HELD.map(({ key, word, fill }) => (
            <tr key={key} className="border-b border-hair">
              <th scope="row" className="py-0.5 text-base font-normal text-ink">
                <span
                  aria-hidden
                  className="mr-2 inline-block h-3 w-3 border border-ink"
                  style={{ background: fill }}
                />
                {word}
              </th>
              {rows.map((row) => (
                <td key={row.name} className="figure text-right">
                  {format.percent(row.shares[key])}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
