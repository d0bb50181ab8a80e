import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

type Row = Schemas["ComparisonRow"];

/** Two to four batches, or one with its plan: differences first, in the order of the chain. */
export function CompareBatchesPage() {
  const format = useFormat();
  const [search] = useAsked();
  const [all, setAll] = useState(false);
  const batches = search.get("batches") ?? "";
  const { data, error } = useQuery({
    queryKey: ["batches", "comparison", batches],
    enabled: batches !== "",
    queryFn: () => answer(api.GET("/api/v1/batch-comparison", { params: { query: { batches } } })),
  });
  const rows = data?.rows.filter((row) => all || row.differs) ?? [];
  const equal = (data?.rows.length ?? 0) - (data?.rows.filter((row) => row.differs).length ?? 0);
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Compare batches</h1>
      {batches === "" && (
        <p className="text-iron">
          Tick two to four batches in the{" "}
          <Link className="link" to="/results">
            list
          </Link>
          , or one to hold it against its plan.
        </p>
      )}
      {error && <p role="alert">{error.message}</p>}
      {data && (
        <>
          <div className="overflow-x-auto">
            <table className="w-full">
              <thead>
                <tr className="align-bottom">
                  <th scope="col">figure</th>
                  {data.batches.map((batch) => (
                    <th key={batch.id} scope="col" className="text-right">
                      <Link className="link font-semibold text-ink" to={`/batches/${batch.id}`}>
                        {batch.product}
                      </Link>
                      <span className="block">{format.moment(batch.planned_for)}</span>
                      <span className="block">
                        {batch.line}, lot {batch.lot}
                      </span>
                    </th>
                  ))}
                  <th scope="col" className="pl-6">
                    how far apart
                  </th>
                  <th scope="col" className="pl-6">
                    what it likely does
                  </th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.label} className="border-t border-hair align-top">
                    <th scope="row" className="py-1.5 text-ink">
                      {row.label}
                    </th>
                    {row.values.map((value, at) => (
                      <td key={at} className="figure py-1.5 text-right">
                        {value == null ? "–" : format.figure(value, row.unit)}
                        {row.planned[at] != null && (
                          <span className="block text-sm font-normal text-iron">
                            planned {format.figure(row.planned[at], row.unit)}
                          </span>
                        )}
                      </td>
                    ))}
                    <td className="py-1.5 pl-6">
                      <Apart row={row} />
                    </td>
                    <td className="py-1.5 pl-6 text-sm text-iron">{row.differs && row.likely}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {rows.length === 0 && (
            <p className="mt-3">Nothing differs by as much as is noticed on the floor.</p>
          )}
          {equal > 0 && (
            <button type="button" className="link mt-3" onClick={() => setAll(!all)}>
              {all ? "Differences alone" : `${format.count(equal, "figure")} that differ little`}
            </button>
          )}
          <p className="mt-3 text-sm text-iron">
            What a difference likely does is a house judgement; the fault finder weighs it.
          </p>
        </>
      )}
    </>
  );
}

/** Where the values lie on one ruled scale, the plan as a tick. */
function Apart({ row }: { row: Row }) {
  const values = row.values.filter((one) => one != null);
  const planned = row.planned.filter((one) => one != null);
  const all = [...values, ...planned];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const at = (value: number) => (high > low ? 6 + ((value - low) / (high - low)) * 108 : 60);
  return (
    <svg aria-hidden viewBox="0 0 120 20" className="h-5 w-32">
      <line x1="6" x2="114" y1="12" y2="12" stroke="var(--color-hair)" />
      {planned.map((value, i) => (
        <line
          key={`p${i}`}
          x1={at(value)}
          x2={at(value)}
          y1="4"
          y2="18"
          stroke="var(--color-iron)"
          strokeDasharray="2 2"
        />
      ))}
      {values.map((value, i) => (
        <circle key={i} cx={at(value)} cy="12" r="4" fill="var(--color-crust)" fillOpacity="0.75" />
      ))}
    </svg>
  );
}
