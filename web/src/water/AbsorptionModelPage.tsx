import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { PredictionPlot } from "../figures/PredictionPlot";
import { Refusal } from "../form/Refusal";
import { Signed } from "../form/Signed";
import { useFormat } from "../units/format";
import { useSaveParameters } from "../plant/useSaveParameters";
import { WaterTabs } from "./WaterTabs";
import { Faults } from "../form/Faults";

/** What the plant's own lots teach of absorption: belief before and after, and how it would do. */
export function AbsorptionModelPage() {
  const format = useFormat();
  const { data: model, error } = useQuery({
    queryKey: ["absorption model"],
    queryFn: () => answer(api.GET("/api/v1/absorption-model")),
  });
  const [reason, setReason] = useState("");
  const save = useSaveParameters(() => setReason(""));
  if (!model)
    return (
      <>
        <WaterTabs />
        <h1>Absorption model</h1>
        {error ? (
          <Refusal error={error} />
        ) : (
          <p className="py-10 text-iron">Going through the lots …</p>
        )}
      </>
    );
  const upToDate = model.in_use_lots === model.lots;
  return (
    <>
      <WaterTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Absorption model</h1>
          <p className="text-sm text-iron">
            Absorption from protein, damaged starch and ash, for lots without a curve
          </p>
        </div>
        <p className="text-sm">
          <span className="figure block text-2xl">{model.lots}</span>
          measured lots of wheat
        </p>
        {model.off_pct != null && (
          <p className="text-sm">
            <span className="figure block text-2xl">{format.number(model.off_pct, 2)} points</span>
            off, as a rule, predicting the next
          </p>
        )}
        <p className="text-sm">
          <span className="figure block text-2xl">{model.in_use_lots}</span>
          lots are in what doughs are computed with
        </p>
      </div>
      <div className="mt-5 grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <div>
          <table className="w-full">
            <caption className="sr-only">The model's coefficients</caption>
            <thead>
              <tr className="border-b border-ink">
                <th scope="col" className="py-1">
                  coefficient
                </th>
                <th scope="col" className="text-right">
                  default (H)
                </th>
                <th scope="col" className="text-right">
                  learned
                </th>
                <th scope="col" className="text-right">
                  in use
                </th>
              </tr>
            </thead>
            <tbody>
              {model.prior.map((before, at) => (
                <tr key={before.key} className="border-b border-hair">
                  <th scope="row" className="py-1 text-base font-normal text-ink">
                    {before.label}
                  </th>
                  {[before, model.learned[at], model.in_use[at]].map(
                    (one, column) =>
                      one && (
                        <td key={column} className="pl-4 text-right whitespace-nowrap">
                          <span className="figure">{format.number(one.mean, 2)}</span>{" "}
                          <span className="text-sm text-iron">± {format.number(one.sd, 2)}</span>
                        </td>
                      ),
                  )}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-2 text-sm text-iron">
            Before any lot the house believes the numbers of the first column (H). Every measured
            lot moves them by how sure it is against how sure they were.
          </p>
          <section aria-labelledby="take-over" className="mt-5 border-t border-ink pt-3">
            <Faults error={save.error}>
              <h2 id="take-over">{upToDate ? "This model is in use" : "Use this model"}</h2>
              <Signed label="Why" reason={reason} onReason={setReason} />
              <p className="mt-3 flex gap-3">
                <button
                  type="button"
                  className="act act-main"
                  disabled={save.isPending || upToDate}
                  onClick={() => save.mutate({ model: "learn", reason })}
                >
                  Learn from {model.lots} lots
                </button>
                {model.in_use_lots > 0 && (
                  <button
                    type="button"
                    className="act"
                    disabled={save.isPending}
                    onClick={() => save.mutate({ model: "forget", reason })}
                  >
                    Reset to default
                  </button>
                )}
              </p>
            </Faults>
          </section>
        </div>
        {model.predictions.length > 0 ? (
          <PredictionPlot lots={model.predictions} />
        ) : (
          <p className="text-iron">
            No lot states absorption, protein, damaged starch and ash together yet. Those that do
            are set against the model here, and it learns from them.
          </p>
        )}
      </div>
    </>
  );
}
