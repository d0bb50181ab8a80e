import { useState } from "react";
import type { Schemas } from "../api/client";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { useFormat } from "../units/format";
import { FIGURES, type StageInput } from "./method";

interface Props {
  stage: StageInput;
  /** The stages before it. */
  before: StageInput[];
  /** What the number it ends at is of; not known while the method is refused. */
  figure: Schemas["EndFigure"] | null | undefined;
  end: Schemas["StageEnd"] | undefined;
  fault: (field: string) => string | undefined;
  onChange: (change: Partial<StageInput>) => void;
}

/** The number a stage ends at, and when it is predicted to stand there. */
export function StageEnd({ stage, before, figure: told, end, fault, onChange }: Props) {
  const format = useFormat();
  const sign = stage.end_point;
  // What is refused stays where it was typed, with why.
  const [known, keep] = useState({ sign, figure: told });
  if (told !== undefined && (known.sign !== sign || known.figure !== told))
    keep({ sign, figure: told });
  const figure = told === undefined && known.sign === sign ? known.figure : told;
  if (!figure && !end) return null;
  return (
    <>
      {figure && (
        <NumberField
          label={FIGURES[figure].label}
          kind={FIGURES[figure].kind}
          value={stage.ends_at ?? null}
          onSet={(value) => onChange({ ends_at: value ?? undefined })}
          fault={fault("ends_at")}
        />
      )}
      {figure === "height" && (
        <NumberField
          label="Height at first, mm"
          kind="number"
          value={stage.begins_at_mm ?? null}
          onSet={(value) => onChange({ begins_at_mm: value ?? undefined })}
          fault={fault("begins_at_mm")}
          hint="as the stage begins, between straight sides"
        />
      )}
      {figure === "minutes_after" && (
        <Select
          label="After the end of"
          value={stage.ends_after ?? ""}
          none="choose a stage …"
          options={before.flatMap((one) => (one.id ? [[one.id, one.label ?? ""] as const] : []))}
          onSet={(ends_after) => onChange({ ends_after })}
          fault={fault("ends_after")}
        />
      )}
      {end && (
        <p className="col-span-full text-sm">
          {end.minutes == null ? (
            "Predicted: not within three days as it is."
          ) : (
            <>
              Predicted after <b className="figure">{format.minutes(Math.round(end.minutes))}</b>
              <PredictedBand end={end} />{" "}
              {Math.round(end.minutes) !== Math.round(end.planned_min) && (
                <button
                  type="button"
                  className="link"
                  onClick={() => onChange(lasting(stage, end.minutes ?? 0))}
                >
                  Use it
                </button>
              )}
            </>
          )}
        </p>
      )}
    </>
  );
}

/** How much sooner or later it may be. */
export function PredictedBand({ end }: { end: Schemas["StageEnd"] }) {
  const format = useFormat();
  if (end.minutes == null || end.low_min == null) return null;
  const low = Math.round(end.low_min);
  if (end.high_min == null) return `, from ${format.minutes(low)} on`;
  const high = Math.round(end.high_min);
  return low === high ? null : ` (${format.between(low, high)})`;
}

/** A stage that lasts so long; its tolerance is the house's again where it does not allow that. */
export function lasting(stage: StageInput, minutes: number): Partial<StageInput> {
  const whole = Math.round(minutes);
  const { low_min = 0, high_min = Infinity } = stage.tolerance ?? {};
  return {
    minutes: whole,
    ...((whole < low_min || whole > high_min) && { tolerance: null }),
  };
}
