import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import type { Run } from "./run";

/** What it came to, against the plan. */
export function RunReport({ run }: { run: Run }) {
  const format = useFormat();
  const { water, dough_c, mixing_kj_per_kg, proof_min, bake_min, loss_pct, pieces } = run.report;
  const slicer = run.report.slicer_core;
  const rows: [string, Schemas["PlanDifference"] | null | undefined, string][] = [
    ["Dough temperature", dough_c, "°C"],
    ["Mixing energy", mixing_kj_per_kg, "kJ/kg"],
    ["Proof", proof_min, "min"],
    ["Bake", bake_min, "min"],
    ["Loss", loss_pct, "%"],
    ["Pieces", pieces, ""],
  ];
  const known = rows.filter(([, one]) => one);
  if (known.length === 0 && !water && !slicer) return null;
  return (
    <section className="mt-6">
      <h2 className="text-xl">Against the plan</h2>
      <dl className="text-lg">
        {water && (
          <div className="flex justify-between border-t border-hair py-1">
            <dt>Water</dt>
            <dd>
              {format.mass(water.weighed_kg + water.added_kg)},{" "}
              {format.signed(water.over_plan_pts, 2)} points
            </dd>
          </div>
        )}
        {known.map(
          ([name, one, unit]) =>
            one && (
              <div key={name} className="flex justify-between border-t border-hair py-1">
                <dt>{name}</dt>
                <dd>
                  {format.figure(one.actual, unit)}, {format.figure(one.difference, unit, true)}
                </dd>
              </div>
            ),
        )}
        {slicer && (
          <div className="flex justify-between border-t border-hair py-1">
            <dt>Core at the slicer</dt>
            <dd className={slicer.over ? "font-semibold text-stop" : ""}>
              {format.temperature(slicer.core_c)}, at most {format.temperature(slicer.limit_c)}
              {slicer.over && ": let it cool, it smears"}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}
