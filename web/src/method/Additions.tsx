import { useFormula } from "../dough/useFormula";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { useLabels } from "../plant/usePlantParameters";
import type { StageInput } from "./method";

type Addition = NonNullable<StageInput["adds"]>[number];

interface Props {
  adds: Addition[];
  /** The names of all stages, and which of them this is. */
  stages: string[];
  at: number;
  fault: (field: string) => string | undefined;
  onChange: (adds: Addition[]) => void;
  /** Lets something go in at another stage. */
  onMove: (place: number, to: number) => void;
}

/** What goes in at a stage: all of an ingredient or a share of it, and how warm. */
export function Additions({ adds, stages, at, fault, onChange, onMove }: Props) {
  const { lines } = useFormula();
  const labels = useLabels();
  const known = ["water", ...lines.map((line) => line.ingredient)].filter((one) => one !== "flour");
  const set = (place: number, change: Partial<Addition>) =>
    onChange(adds.map((one, index) => (index === place ? { ...one, ...change } : one)));
  const without = (place: number) => adds.filter((_, index) => index !== place);
  return (
    <fieldset className="mt-3 border-t border-hair pt-2">
      <legend className="float-left text-sm text-iron">Goes in at its start</legend>
      <div className="clear-both space-y-2">
        {adds.map((one, place) => (
          <div key={place} className="flex flex-wrap items-start gap-x-4 gap-y-2">
            <b className="w-28 pt-7">{labels(one.ingredient)}</b>
            <NumberField
              label="Of it"
              className="w-24"
              kind="percent"
              value={one.share_pct ?? null}
              onSet={(value) => set(place, { share_pct: value ?? undefined })}
              fault={fault(`adds[${place}].share_pct`)}
              hint={one.share_pct == null ? "all the rest" : undefined}
            />
            <NumberField
              label="Goes in at"
              className="w-24"
              kind="temperature"
              value={one.temperature_c ?? null}
              onSet={(value) => set(place, { temperature_c: value ?? undefined })}
              fault={fault(`adds[${place}].temperature_c`)}
              hint={one.temperature_c == null ? "as it comes" : undefined}
            />
            <Select
              label="At the stage"
              value={String(at)}
              options={stages.map((label, stage) => [String(stage), label])}
              onSet={(stage) => onMove(place, Number(stage))}
            />
            <button type="button" className="link pt-7" onClick={() => onChange(without(place))}>
              Take out<span className="sr-only"> {labels(one.ingredient)}</span>
            </button>
          </div>
        ))}
        <Select
          label="Something goes in here"
          className="max-w-60"
          value=""
          none="choose …"
          options={known.map((one) => [one, labels(one)])}
          onSet={(ingredient) =>
            onChange([...adds, { ingredient: ingredient as Addition["ingredient"] }])
          }
        />
      </div>
    </fieldset>
  );
}
