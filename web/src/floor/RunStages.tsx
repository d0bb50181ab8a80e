import { useFormat } from "../units/format";
import { ENDED_BY, type Run } from "./run";

/** Every stage: as it was, as it is, as it comes. */
export function RunStages({ run }: { run: Run }) {
  const format = useFormat();
  const current = run.record.started_at ? run.report.next?.stage : undefined;
  return (
    <section className="mt-6">
      <h2 className="text-xl">Stages</h2>
      <table className="w-full text-lg">
        <thead>
          <tr>
            <th scope="col">stage</th>
            <th scope="col" className="text-right">
              planned
            </th>
            <th scope="col" className="text-right">
              now
            </th>
          </tr>
        </thead>
        <tbody>
          {run.stages.map((stage, at) => {
            const time = run.report.times[at];
            if (!time) return null;
            const by = run.record.stages.find((one) => one.stage === stage.stage)?.ended_by;
            const open = stage.stage === current;
            const shift = Math.round(
              (Date.parse(time.ended_at ?? time.expected_end) - Date.parse(time.planned_end)) /
                60_000,
            );
            return (
              <tr
                key={stage.stage}
                className={`border-t border-hair ${time.ended_at ? "text-iron" : ""} ${open ? "font-semibold" : ""}`}
              >
                <td className="py-1">
                  {stage.label}
                  {by && <span className="text-iron"> by {ENDED_BY[by]}</span>}
                  {time.beyond_limit && <b className="text-stop"> beyond its limit</b>}
                </td>
                <td className="text-right">{format.time(time.planned_end)}</td>
                <td className="figure pl-5 text-right whitespace-nowrap">
                  {format.time(time.ended_at ?? time.expected_end)}
                  {Math.abs(shift) >= 1 && (
                    <span className={`text-base ${shift > 0 ? "text-crust" : "text-iron"}`}>
                      {" "}
                      {shift > 0 ? "+" : "−"}
                      {format.minutes(Math.abs(shift))}
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
