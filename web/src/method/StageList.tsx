import { Fragment, useRef, useState, type DragEvent, type ReactNode } from "react";
import type { Schemas } from "../api/client";
import { PREPARATIONS } from "../dough/formula";
import { useLabels } from "../plant/usePlantParameters";
import { useFormat } from "../units/format";
import { endsAt } from "./endsAt";
import { SIGNS, type StageInput } from "./method";
import { phaseText } from "./programme";

interface Props {
  stages: StageInput[];
  guide: Schemas["MethodGuide"] | undefined;
  /** The stage that is open for a change. */
  open: number | null;
  onOpen: (at: number) => void;
  /** Puts a stage at another place. */
  onMove: (from: number, to: number) => void;
  /** Lets something that goes in at one stage go in at another. */
  onMoveAddition: (place: number, from: number, to: number) => void;
  editor: (at: number) => ReactNode;
}

/** What is dragged: a stage, or by its place something that goes in at it. */
interface Dragged {
  from: number;
  addition?: number;
}

/** Stage by stage: how long it is and may be, under what, until when, and why. */
export function StageList(props: Props) {
  const { stages, guide, open, onOpen, onMove, onMoveAddition, editor } = props;
  const format = useFormat();
  const labels = useLabels();
  // Read by whatever it is dragged over, at once: a quick hand drops it before anything is drawn anew.
  const dragged = useRef<Dragged | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const drag = (what: Dragged) => ({
    draggable: true,
    onDragStart: (event: DragEvent) => {
      event.stopPropagation();
      event.dataTransfer.effectAllowed = "move";
      event.dataTransfer.setData("text/plain", stages[what.from]?.label ?? "");
      dragged.current = what;
    },
    onDragEnd: () => {
      dragged.current = null;
      setOver(null);
    },
  });
  const drop = (at: number) => ({
    onDragOver: (event: DragEvent) => {
      if (!dragged.current || dragged.current.from === at) return;
      event.preventDefault();
      setOver(at);
    },
    onDrop: (event: DragEvent) => {
      event.preventDefault();
      const what = dragged.current;
      dragged.current = null;
      setOver(null);
      if (what?.addition != null) onMoveAddition(what.addition, what.from, at);
      else if (what) onMove(what.from, at);
    },
  });
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
          <li
            key={at}
            {...drop(at)}
            className={`border-t py-2 ${over === at ? "border-ink bg-faint" : "border-hair"}`}
          >
            <div className="flex gap-4">
              <span
                {...drag({ from: at })}
                title="Drag it to another place"
                className="w-24 shrink-0 cursor-grab text-right"
              >
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
                    {stage.makes && ` · of the ${PREPARATIONS[stage.makes].toLowerCase()}`}
                    {stage.adds?.map((addition, place) => (
                      <Fragment key={place}>
                        {place === 0 ? " · " : ", "}
                        <span
                          {...drag({ from: at, addition: place })}
                          title="Drag it to the stage it goes in at"
                          className="cursor-grab border-b border-dotted border-iron"
                        >
                          {[
                            addition.share_pct != null &&
                              `${format.percent(addition.share_pct, 0)} of the`,
                            labels(addition.ingredient),
                            addition.temperature_c != null &&
                              `at ${format.temperature(addition.temperature_c, 0)}`,
                          ]
                            .filter(Boolean)
                            .join(" ")}
                        </span>
                      </Fragment>
                    ))}
                    {(stage.adds ?? []).length > 0 && " in"}
                  </span>
                </p>
                {(stage.programme ?? []).length > 0 && (
                  <p className="text-sm">
                    {stage.programme?.map((phase) => phaseText(phase, format)).join("; ")}
                  </p>
                )}
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
