import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** The method's stages: how long, under what, and what ends each. */
export function Stages({ stages }: { stages: Schemas["Stage"][] }) {
  const format = useFormat();
  return (
    <section aria-label="Stages">
      <h2>Stages</h2>
      <ol className="mt-1">
        {stages.map((stage, at) => (
          <li key={at} className="flex gap-3 border-t border-hair py-1.5">
            <span className="figure w-16 shrink-0 text-right text-lg">
              {format.minutes(stage.minutes)}
            </span>
            <span className="min-w-0">
              <span className="font-semibold">{stage.label}</span>
              <span className="text-sm text-iron">
                {stage.speed && ` · ${stage.speed}`}
                {stage.temperature_c != null && ` · ${format.temperature(stage.temperature_c, 0)}`}
                {stage.humidity_pct != null &&
                  ` · ${format.percent(stage.humidity_pct, 0)} humidity`}
                {stage.adds.length > 0 &&
                  ` · ${stage.adds.map((one) => one.replaceAll("_", " ")).join(", ")} in`}
              </span>
              <span className="block text-sm">until {stage.ends_when}</span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
