import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { useLabels } from "../plant/usePlantParameters";
import { useFormat } from "../units/format";
import { endsAt } from "./endsAt";
import { SIGNS, type StageInput } from "./method";

interface Props {
  stages: StageInput[];
  guide: Schemas["MethodGuide"] | undefined;
  /** The stage that is open for a change. */
  open: number | null;
  onOpen: (at: number) => void;
  editor: (at: number) => ReactNode;
}

/** Stage by stage: how long it is and may be, under what, until when, and why. */
export function StageList({ stages, guide, open, onOpen, editor }: Props) {
  const format = useFormat();
  const labels = useLabels();
  return (
    <ol>
      {stages.map((stage, at) => {
        const [window, wait, usual, every] = [
          guide?.windows[at],
          guide?.waits_min[at] ?? 0,
          guide?.usual[at],
          guide?.folds_every_min[at],
        ];
        const end = endsAt(stage, guide?.end_figures[at], stages, format);
        const predicted = guide?.ends.find((one) => one.stage === at);
        const minutes = stage.minutes ?? 0;
        const odd = usual?.minutes && (minutes < usual.minutes.low || minutes > usual.minutes.high);
        return (
          <li key={at} className="border-t border-hair py-2">
            <div className="flex gap-4">
              <span className="w-24 shrink-0 text-right">
                <span className="figure block text-xl">{format.minutes(minutes)}</span>
                {window && (
                  <span className="block text-xs text-iron">
                    {format.between(window.low_min, window.high_min)}
                  </span>
                )}
              </span>
              <div className="min-w-0 flex-1">
                <p>
                  <b>{stage.label}</b>
                  <span className="text-sm text-iron">
                    {stage.speed && ` · ${stage.speed}`}
                    {every != null && ` · one every ${format.minutes(every)}`}
                    {stage.temperature_c != null &&
                      ` · ${[stage, ...(stage.ambient_curve ?? [])]
                        .map((one) => format.temperature(one.temperature_c ?? 0, 0))
                        .join(" → ")}`}
                    {stage.humidity_pct != null &&
                      ` · ${format.percent(stage.humidity_pct, 0)} humidity`}
                    {(stage.adds ?? []).length > 0 &&
                      ` · ${stage.adds
                        ?.map(({ ingredient, share_pct, temperature_c }) =>
                          [
                            share_pct != null && `${format.percent(share_pct, 0)} of the`,
                            labels(ingredient),
                            temperature_c != null && `at ${format.temperature(temperature_c, 0)}`,
                          ]
                            .filter(Boolean)
                            .join(" "),
                        )
                        .join(", ")} in`}
                  </span>
                </p>
                {(stage.ends_when || end) && (
                  <p className="text-sm">
                    <span className="text-iron">
                      End point, {SIGNS[stage.end_point ?? "look"]}:
                    </span>{" "}
                    {[stage.ends_when && format.text(stage.ends_when), end]
                      .filter(Boolean)
                      .join(", ")}
                    {predicted?.minutes != null && (
                      <span className="text-iron">
                        , predicted after {format.minutes(Math.round(predicted.minutes))}
                      </span>
                    )}
                  </p>
                )}
                <p className="text-sm text-iron">
                  {format.text(stage.reason ?? "")}
                  {wait >= 1 && (
                    <span className="text-water">
                      {stage.reason && " · "}can wait {format.minutes(wait)}
                    </span>
                  )}
                </p>
                {guide?.cautions[at]?.map((caution) => (
                  <p key={caution} className="text-sm font-semibold">
                    {format.text(caution)}
                  </p>
                ))}
                {odd && usual.minutes && (
                  <p className="text-sm text-crust">
                    Usual is {format.between(usual.minutes.low, usual.minutes.high)}:{" "}
                    {usual.message}.
                  </p>
                )}
              </div>
              <button
                type="button"
                className="screen-only link self-start text-sm"
                aria-expanded={open === at}
                onClick={() => onOpen(at)}
              >
                {open === at ? "Done" : "Change"}
                <span className="sr-only"> {stage.label}</span>
              </button>
            </div>
            {open === at && <div className="mt-2 ml-28">{editor(at)}</div>}
          </li>
        );
      })}
    </ol>
  );
}
