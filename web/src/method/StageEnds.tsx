import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { endsAt } from "./endsAt";
import { lasting, PredictedBand } from "./StageEnd";
import { useGuide, useMethod } from "./useMethod";

/** When the stages that end at a number are predicted to, and to plan them so. */
export function StageEnds({ ends }: { ends: Schemas["StageEnd"][] }) {
  const { method, setStages } = useMethod();
  const guide = useGuide();
  const format = useFormat();
  const stages = method?.stages ?? [];
  if (ends.length === 0) return null;
  const off = ends.some(
    ({ minutes, planned_min }) => minutes != null && Math.round(minutes) !== planned_min,
  );
  const use = () =>
    setStages((stages) =>
      stages.map((stage, at) => {
        const minutes = ends.find((end) => end.stage === at)?.minutes;
        return minutes == null ? stage : { ...stage, ...lasting(stage, minutes) };
      }),
    );
  return (
    <section aria-labelledby="stage-ends">
      <h2 id="stage-ends">Stage ends</h2>
      <table className="mt-1 w-full">
        <caption className="sr-only">Planned and predicted time of each stage</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              stage
            </th>
            <th scope="col">ends at</th>
            <th scope="col" className="text-right">
              planned
            </th>
            <th scope="col" className="text-right">
              predicted
            </th>
          </tr>
        </thead>
        <tbody>
          {ends.map((end) => {
            const stage = stages[end.stage];
            return (
              stage && (
                <tr key={end.stage} className="border-b border-hair">
                  <th scope="row" className="py-1 text-base font-normal text-ink">
                    {stage.label}
                  </th>
                  <td>{endsAt(stage, guide?.end_figures[end.stage], stages, format)}</td>
                  <td className="text-right whitespace-nowrap">
                    {format.minutes(end.planned_min)}
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {end.minutes == null ? (
                      <span className="text-crust">not within three days</span>
                    ) : (
                      <>
                        <span className="figure">{format.minutes(Math.round(end.minutes))}</span>
                        <span className="text-sm text-iron">
                          <PredictedBand end={end} />
                        </span>
                      </>
                    )}
                  </td>
                </tr>
              )
            );
          })}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-iron">
        In brackets with doughs as much quicker and slower as those of one formula usually differ (1
        σ). Each stage begins where the one before is predicted to end.
      </p>
      {off && (
        <button type="button" className="act screen-only mt-2" onClick={use}>
          Use the predicted times
        </button>
      )}
    </section>
  );
}
