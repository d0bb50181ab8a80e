import { NumberField } from "../form/NumberField";
import type { StageInput } from "./method";

type Point = NonNullable<StageInput["ambient_curve"]>[number];

interface Props {
  points: Point[];
  /** What is around it as the stage begins, °C. */
  from: number | null;
  minutes: number;
  fault: (field: string) => string | undefined;
  onChange: (points: Point[]) => void;
}

/** What is around a dough as it changes during a stage: a room that cools overnight. */
export function AmbientCurve({ points, from, minutes, fault, onChange }: Props) {
  const set = (place: number, change: Partial<Point>) =>
    onChange(points.map((one, at) => (at === place ? { ...one, ...change } : one)));
  const last = points.at(-1);
  const next: Point = {
    after_min: Math.max(minutes, (last?.after_min ?? 0) + 60),
    temperature_c: last?.temperature_c ?? from ?? 20,
  };
  return (
    <fieldset className="mt-3 border-t border-hair pt-2">
      <legend className="float-left text-sm text-iron">Ambient as it changes</legend>
      <div className="clear-both space-y-2">
        {points.map((point, place) => (
          <div key={place} className="flex flex-wrap items-start gap-x-4 gap-y-2">
            <NumberField
              label="Into the stage"
              className="w-28"
              kind="duration"
              value={point.after_min ?? null}
              onSet={(value) => set(place, { after_min: value ?? 0 })}
              fault={fault(`ambient_curve[${place}].after_min`)}
            />
            <NumberField
              label="Ambient"
              className="w-28"
              kind="temperature"
              value={point.temperature_c ?? null}
              onSet={(value) => set(place, { temperature_c: value ?? 0 })}
              fault={fault(`ambient_curve[${place}].temperature_c`)}
            />
            <button
              type="button"
              className="link pt-7"
              onClick={() => onChange(points.toSpliced(place, 1))}
            >
              Take out<span className="sr-only"> point {place + 1}</span>
            </button>
          </div>
        ))}
        <button type="button" className="act" onClick={() => onChange([...points, next])}>
          Add a point
        </button>
        {fault("ambient_curve") && (
          <p className="text-sm text-stop" role="alert">
            {fault("ambient_curve")}.
          </p>
        )}
      </div>
    </fieldset>
  );
}
