import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { BatchChart } from "../figures/BatchChart";
import { Select } from "../form/Select";
import { useFormat } from "../units/format";
import { ProductChoice } from "./ProductChoice";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

const FIGURES: [Schemas["BatchFigure"], string][] = [
  ["dough_temperature", "Dough temperature"],
  ["water_added", "Water over plan"],
  ["mixing_energy", "Mixing energy"],
  ["proof_time", "Proof time"],
  ["bake_time", "Bake time"],
  ["loss", "Loss"],
  ["rejected", "Pieces rejected"],
  ["arrival", "Arrival of the slowest core"],
  ["score", "Score"],
];

/** A figure over batches, with its limits, its runs, and where the lot changed. */
export function ChartsPage() {
  const format = useFormat();
  const navigate = useNavigate();
  const [search, set] = useAsked();
  const figure = (search.get("figure") ?? "dough_temperature") as Schemas["BatchFigure"];
  const product = search.get("of") ?? undefined;
  const { data: chart } = useQuery({
    queryKey: ["batches", "chart", figure, product],
    placeholderData: (last) => last,
    queryFn: () =>
      answer(
        api.GET("/api/v1/batch-chart", {
          params: { query: { figure, ...(product && { product }) } },
        }),
      ),
  });
  const points = chart?.drift?.points ?? [];
  const strange = points.flatMap((point, at) => {
    const batch = chart?.batches[at];
    const why = point.beyond
      ? "beyond a limit"
      : point.run
        ? "one of eight in a row on one side"
        : point.drifting
          ? "a slow drift"
          : undefined;
    return batch && why ? [{ batch, why, value: point.value }] : [];
  });
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Control charts</h1>
      <div className="flex flex-wrap items-end gap-x-6">
        <Select
          label="Figure"
          value={figure}
          options={FIGURES}
          onSet={(next) => set({ figure: next })}
        />
        <ProductChoice product={product ?? ""} onSet={(of) => set({ of })} />
      </div>
      {chart && !chart.drift && (
        <p className="mt-6 text-iron">
          A chart needs three batches with this figure; there{" "}
          {chart.batches.length === 1 ? "is 1" : `are ${chart.batches.length}`}. Readings come from
          the floor: a dough temperature, water that was weighed, stages that were stamped.
        </p>
      )}
      {chart?.drift && (
        <>
          <BatchChart chart={chart} onBatch={(id) => void navigate(`/batches/${id}`)} />
          <h2 className="mt-4">Out of control</h2>
          {strange.length === 0 ? (
            <p className="text-iron">None of these batches.</p>
          ) : (
            <ul>
              {strange.slice(-12).map(({ batch, why, value }) => (
                <li key={batch.id} className="border-t border-hair py-1">
                  <Link className="link" to={`/batches/${batch.id}`}>
                    {format.moment(batch.planned_for)}
                  </Link>
                  , lot {batch.lot}: <b>{format.figure(value, chart.unit)}</b>, {why}
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </>
  );
}
