import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { useMay } from "../session/session";
import { useFormat } from "../units/format";
import { kindOf, shown } from "./featureValue";

interface Props {
  batch: string;
  /** What the fault's causes are told by. */
  wanted: string[];
  /** What would decide most, with how it is measured. */
  decides: Schemas["WouldDecide"][];
  found: Record<string, number>;
  answers: Record<string, number>;
  catalogue: Schemas["FaultCatalogue"];
  onAnswer: (feature: string, value: number | null) => void;
}

/** What is known of the batch, and what is not: to be entered, and written to it. */
export function FaultEvidence(props: Props) {
  const { batch, wanted, decides, found, answers, catalogue, onAnswer } = props;
  const format = useFormat();
  const may = useMay("record");
  const queries = useQueryClient();
  const features = [...new Set([...decides.map((one) => one.feature), ...wanted])].flatMap(
    (key) => catalogue.features.find((one) => one.key === key) ?? [],
  );
  const known = features.filter((one) => one.key in found && !(one.key in answers));
  const open = features.filter((one) => !(one.key in found) || one.key in answers);
  const said = (feature: Schemas["FeatureView"]) => {
    const value = found[feature.key] ?? 0;
    const step = feature.choices[Math.round(value - feature.least)];
    return step ?? shown(format, value, feature.unit);
  };
  const decisive = (feature: Schemas["FeatureView"]) =>
    feature.key in answers || decides.some((one) => one.feature === feature.key);
  const many = Object.keys(answers).length;
  const write = async () => {
    const moment = Date.now();
    await Promise.all(
      Object.entries(answers).map(([name, value], at) =>
        record({
          path: `/api/v1/batches/${batch}/events`,
          label: `${name} of a batch`,
          isEvent: true,
          body: {
            id: crypto.randomUUID(),
            kind: "observation",
            happened_at: new Date(moment + at).toISOString(),
            name,
            value,
          },
        }),
      ),
    );
    await queries.invalidateQueries({ queryKey: ["batches"] });
    for (const name of Object.keys(answers)) onAnswer(name, null);
  };
  return (
    <section aria-label="What is known">
      <h2>The batch says</h2>
      <dl className="mt-1">
        {known.map((feature) => (
          <div
            key={feature.key}
            className="flex gap-4 border-t border-hair py-1"
            title={feature.how}
          >
            <dt className="flex-1">{feature.label}</dt>
            <dd className="figure">{said(feature)}</dd>
          </div>
        ))}
      </dl>
      {known.length === 0 && <p className="text-iron">Nothing of this was measured.</p>}
      <h2 className="mt-4">What would decide</h2>
      {may && many > 0 && (
        <button type="button" className="act my-1" onClick={() => void write()}>
          Write {format.count(many, "answer")} to the batch
        </button>
      )}
      <div className="mt-1 grid gap-2">
        {open.filter(decisive).map((feature) => (
          <Answer
            key={feature.key}
            feature={feature}
            hint={feature.how}
            value={answers[feature.key]}
            onAnswer={onAnswer}
          />
        ))}
      </div>
      <details className="mt-3">
        <summary>Not measured either</summary>
        <div className="mt-1 grid gap-x-4 gap-y-2 sm:grid-cols-2">
          {open
            .filter((feature) => !decisive(feature))
            .map((feature) => (
              <Answer
                key={feature.key}
                feature={feature}
                value={answers[feature.key]}
                onAnswer={onAnswer}
              />
            ))}
        </div>
      </details>
    </section>
  );
}

/** A figure that is missing: one of few, or a number. */
function Answer({
  feature,
  hint,
  value,
  onAnswer,
}: {
  feature: Schemas["FeatureView"];
  hint?: string;
  value: number | undefined;
  onAnswer: Props["onAnswer"];
}) {
  const { key, label, unit, least, choices } = feature;
  if (choices.length > 0) {
    return (
      <Select
        label={label}
        hint={hint}
        value={String(value ?? "")}
        options={[
          ["", "not seen"],
          ...choices.map((choice, at) => [String(least + at), choice] as const),
        ]}
        onSet={(chosen) => onAnswer(key, chosen === "" ? null : Number(chosen))}
      />
    );
  }
  const kind = kindOf(unit);
  return (
    <NumberField
      label={kind === "number" && unit ? `${label}, ${unit}` : label}
      hint={hint}
      kind={kind}
      value={value ?? null}
      onSet={(entered) => onAnswer(key, entered)}
    />
  );
}
