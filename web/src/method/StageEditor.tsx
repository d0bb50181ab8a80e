import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { FieldText } from "../form/FieldText";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { PREPARATIONS } from "../dough/formula";
import { useFormula } from "../dough/useFormula";
import { AmbientCurve } from "./AmbientCurve";
import { BakeProgramme } from "./BakeProgramme";
import { KINDS, SIGNS, type StageInput } from "./method";
import { StageEnd } from "./StageEnd";
import { optionsOf, Select } from "../form/Select";

interface Props {
  stage: StageInput;
  /** The stages before it. */
  before: StageInput[];
  usual: Schemas["TypicalRange"] | undefined;
  /** What the number it ends at is of, and when it is predicted to stand there. */
  figure: Schemas["EndFigure"] | null | undefined;
  end: Schemas["StageEnd"] | undefined;
  /** At or below this it is a refrigerator's, °C. */
  coldC: number;
  fault: (field: string) => string | undefined;
  onChange: (change: Partial<StageInput>) => void;
  onMove: (by: number) => void;
  isFirst: boolean;
  isLast: boolean;
  onRemove: () => void;
  /** A new stage right after this one. */
  onAddAfter: () => void;
  /** What goes in at its start. */
  children: ReactNode;
}

/** One stage, open to be changed. */
export function StageEditor(props: Props) {
  const { stage, before, usual, figure, end, coldC, fault, onChange, onMove, isFirst, isLast } =
    props;
  const { onRemove, onAddAfter, children } = props;
  const format = useFormat();
  const { parts } = useFormula();
  const kinds = [...parts.map((part) => part.kind), ...(stage.makes ? [stage.makes] : [])];
  const preparations = [...new Set(kinds)];
  const tolerance = stage.tolerance;
  const isCold = (celsius: number | null | undefined) => celsius != null && celsius <= coldC;
  const band = (of: Schemas["Estimate"] | null | undefined, show: (value: number) => string) =>
    of ? `usual ${show(of.low)} to ${show(of.high)}` : undefined;
  const setWindow = (change: Partial<NonNullable<StageInput["tolerance"]>>) => {
    const minutes = stage.minutes ?? 0;
    onChange({ tolerance: { low_min: minutes, high_min: minutes, ...tolerance, ...change } });
  };
  return (
    <fieldset className="bg-faint p-3">
      <legend className="sr-only">{stage.label}</legend>
      <div className="grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
        <div className="col-span-2">
          <FieldText
            label="Stage"
            value={stage.label ?? ""}
            onChange={(label) => onChange({ label })}
            fault={fault("label")}
          />
        </div>
        <Select
          label="What happens"
          value={stage.kind}
          options={optionsOf(KINDS)}
          onSet={(kind) => onChange({ kind, tolerance: null, makes: null })}
        />
        {stage.kind === "mix" ? (
          <Select
            label="Speed"
            value={stage.speed ?? "slow"}
            options={[
              ["slow", "slow"],
              ["fast", "fast"],
            ]}
            onSet={(speed) => onChange({ speed })}
          />
        ) : stage.kind === "fold" ? (
          <NumberField
            label="Sets, a rest after each"
            kind="number"
            value={stage.fold_sets ?? 1}
            onSet={(value) => onChange({ fold_sets: value ?? 1 })}
            fault={fault("fold_sets")}
          />
        ) : (
          <NumberField
            label="Humidity"
            kind="percent"
            value={stage.humidity_pct ?? null}
            onSet={(value) => onChange({ humidity_pct: value ?? undefined })}
            fault={fault("humidity_pct")}
            hint={band(usual?.humidity_pct, (value) => format.percent(value, 0))}
          />
        )}
        {(stage.kind === "mix" || stage.kind === "rest") && preparations.length > 0 && (
          <Select
            label="Of"
            value={stage.makes ?? ""}
            options={[
              ["", "the final dough"],
              ...preparations.map((kind) => [kind, PREPARATIONS[kind].toLowerCase()] as const),
            ]}
            onSet={(kind) =>
              onChange({ makes: preparations.find((one) => one === kind) ?? null, tolerance: null })
            }
            fault={fault("makes")}
          />
        )}
        <NumberField
          label="Lasts"
          kind="duration"
          value={stage.minutes ?? null}
          onSet={(value) => onChange({ minutes: value ?? 0 })}
          fault={fault("minutes")}
          hint={band(usual?.minutes, (value) => format.minutes(value))}
        />
        <NumberField
          label="At least"
          kind="duration"
          value={tolerance?.low_min ?? null}
          onSet={(value) => setWindow({ low_min: value ?? 0 })}
          fault={fault("tolerance.low_min")}
        />
        <NumberField
          label="At most"
          kind="duration"
          value={tolerance?.high_min ?? null}
          onSet={(value) => setWindow({ high_min: value ?? stage.minutes ?? 0 })}
          fault={fault("tolerance.high_min")}
        />
        <NumberField
          label="Ambient"
          kind="temperature"
          value={stage.temperature_c ?? null}
          onSet={(value) =>
            onChange({
              temperature_c: value ?? undefined,
              // What a dough may lie in the cold it may not lie in the warmth.
              ...(isCold(value) !== isCold(stage.temperature_c) && { tolerance: null }),
            })
          }
          fault={fault("temperature_c")}
          hint={band(usual?.temperature_c, (value) => format.temperature(value, 0))}
        />
        <Select
          label="End point"
          value={stage.end_point ?? "look"}
          options={optionsOf(SIGNS)}
          onSet={(end_point) =>
            onChange({ end_point, ends_at: undefined, begins_at_mm: undefined })
          }
        />
        <StageEnd
          stage={stage}
          before={before}
          figure={figure}
          end={end}
          fault={fault}
          onChange={onChange}
        />
        <div className="col-span-3">
          <FieldText
            label="Sign to look for"
            value={stage.ends_when ?? ""}
            onChange={(ends_when) => onChange({ ends_when })}
            fault={fault("ends_when")}
          />
        </div>
        <div className="col-span-full">
          <FieldText
            label="Reason"
            value={stage.reason ?? ""}
            onChange={(reason) => onChange({ reason })}
            fault={fault("reason")}
          />
        </div>
      </div>
      {(stage.kind === "rest" || stage.kind === "fold" || stage.kind === "proof") && (
        <AmbientCurve
          points={stage.ambient_curve ?? []}
          from={stage.temperature_c ?? null}
          minutes={stage.minutes ?? 0}
          fault={fault}
          onChange={(ambient_curve) => onChange({ ambient_curve })}
        />
      )}
      {stage.kind === "bake" && (
        <BakeProgramme
          phases={stage.programme ?? []}
          minutes={stage.minutes ?? 0}
          celsius={stage.temperature_c}
          fault={fault}
          onChange={onChange}
        />
      )}
      {children}
      <p className="mt-3 flex flex-wrap gap-3">
        <button type="button" className="act" disabled={isFirst} onClick={() => onMove(-1)}>
          Earlier
        </button>
        <button type="button" className="act" disabled={isLast} onClick={() => onMove(1)}>
          Later
        </button>
        <button type="button" className="act" onClick={onAddAfter}>
          Add a stage after it
        </button>
        <button type="button" className="act" onClick={onRemove}>
          Remove stage
        </button>
        {tolerance && (
          <button
            type="button"
            className="link text-sm"
            onClick={() => onChange({ tolerance: null })}
          >
            The house's tolerance
          </button>
        )}
      </p>
    </fieldset>
  );
}
