import { isAfterOven } from "../figures/afterOven";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import type { RunQuery } from "./run";

interface Props {
  plan: Schemas["RunPlan"];
  chosen: { dough: number; stage: number } | null;
  onChoose: (chosen: { dough: number; stage: number }) => void;
  onShift: (dough: number, stage: number, by_min: number) => void;
  shifts: RunQuery["shifts"];
  onCalm: () => void;
}

const STEPS = [-15, -5, 5, 15];

/** Each dough's hours; a stage chosen is moved, and the rest follows. */
export function RunTable({ plan, chosen, onChoose, onShift, shifts, onCalm }: Props) {
  const format = useFormat();
  const shown = plan.doughs[0]?.stages.filter((stage) => !isAfterOven(stage)) ?? [];
  const dough = plan.doughs.find((one) => one.number === chosen?.dough);
  const stage = dough?.stages.find((one) => one.stage === chosen?.stage);
  return (
    <section aria-label="The doughs" className="min-w-0">
      <div className="screen-only flex min-h-9 flex-wrap items-center gap-3 text-sm">
        {stage && dough ? (
          <>
            <b>
              Dough {dough.number}, {stage.label}
            </b>
            {format.time(stage.starts_at)} to {format.time(stage.ends_at)}
            {STEPS.map((step) => (
              <button
                key={step}
                type="button"
                className="border border-iron px-1.5 py-0.5"
                aria-label={`${Math.abs(step)} minutes ${step < 0 ? "earlier" : "later"}`}
                onClick={() => onShift(dough.number, stage.stage, step)}
              >
                {step > 0 ? "+" : "−"}
                {Math.abs(step)}
              </button>
            ))}
          </>
        ) : (
          <span className="text-iron">Choose a stage to move it; what comes after gives way.</span>
        )}
        {shifts.length > 0 && (
          <button type="button" className="link" onClick={onCalm}>
            As it was planned
          </button>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-sm">
          <caption className="sr-only">When each dough begins each stage</caption>
          <thead>
            <tr className="border-b border-ink align-bottom">
              <th scope="col" className="py-1 pr-2">
                dough
              </th>
              {shown.map((one) => (
                <th scope="col" key={one.stage} className="px-1 text-right">
                  {one.label}
                </th>
              ))}
              <th scope="col" className="pl-2 text-right">
                out
              </th>
            </tr>
          </thead>
          <tbody>
            {plan.doughs.map((one) => (
              <tr key={one.number} className="border-b border-hair">
                <th scope="row" className="py-0.5 text-ink">
                  {one.number}
                </th>
                {one.stages
                  .filter((each) => !isAfterOven(each))
                  .map((each) => {
                    const on = chosen?.dough === one.number && chosen.stage === each.stage;
                    return (
                      <td key={each.stage} className="px-1 text-right">
                        <button
                          type="button"
                          aria-pressed={on}
                          aria-label={`Dough ${one.number}, ${each.label}, ${format.time(each.starts_at)}`}
                          className={`tabular-nums ${on ? "bg-ink text-paper" : ""} ${each.past_min > 0 ? "font-bold text-stop" : each.waits_min > 0 ? "text-crust" : ""}`}
                          onClick={() => onChoose({ dough: one.number, stage: each.stage })}
                          onKeyDown={(event) => {
                            const by = { ArrowLeft: -5, ArrowRight: 5 }[event.key];
                            if (by) onShift(one.number, each.stage, by);
                          }}
                        >
                          {format.time(each.starts_at)}
                        </button>
                      </td>
                    );
                  })}
                <td className="figure pl-2 text-right">{format.time(one.out_at)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-iron">
        Batch interval {format.minutes(plan.cadence.minutes)}. Arrow keys on a chosen hour move it
        by five minutes.
      </p>
    </section>
  );
}
