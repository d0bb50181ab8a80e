import { Radio, RadioGroup } from "@headlessui/react";
import type { Schemas } from "../api/client";
import { AMOUNTS, type AmountBy } from "../scenario/scenario";
import { useScenario } from "../scenario/ScenarioProvider";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";

const WAYS: { by: AmountBy; name: string; label: string }[] = [
  { by: "pieces", name: "pieces", label: "Pieces wanted" },
  { by: "baked", name: "baked", label: "Good baked pieces wanted" },
  { by: "dough", name: "dough", label: "Dough wanted, all of it" },
  { by: "flour", name: "flour", label: "Flour there is, all of it" },
  { by: "mixer", name: "mixers", label: "Full mixers" },
];

const DIVISIONS = [0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.5];

const valueOf = (amount: Schemas["Amount"]) =>
  "kg" in amount ? amount.kg : "doughs" in amount ? amount.doughs : amount.pieces;

/** How much is wanted, and the scale it is weighed on. */
export function BatchSizePanel() {
  const { chain, product, refused } = useScenarioContext();
  const { scenario, change } = useScenario();
  const format = useFormat();
  const dough = chain?.dough;
  const usual = dough?.amount;
  const { by, value } = scenario.amount ?? {
    by: usual?.by ?? "mixer",
    value: usual ? valueOf(usual) : null,
  };
  const way = WAYS.find((one) => one.by === by);
  const now = (next: AmountBy) => {
    if (!dough) return 1;
    const all: Record<AmountBy, number> = {
      pieces: dough.pieces,
      baked: dough.pieces,
      dough: Number(dough.total_kg.toFixed(2)),
      flour: Number((dough.flour_kg * dough.doughs).toFixed(2)),
      mixer: dough.doughs,
    };
    return all[next];
  };
  const division = scenario.division ?? product?.line.division_kg;
  return (
    <section aria-label="Batch size">
      <h2>Batch size</h2>
      <RadioGroup
        value={by}
        onChange={(next) =>
          change({
            amount: { by: next, value: now(next) },
            cooled: next === "baked" ? Number((dough?.cooled_piece_kg ?? 0.5).toFixed(3)) : null,
          })
        }
        aria-label="Scale to"
        className="mt-2 flex"
      >
        {WAYS.map((one) => (
          <Radio
            key={one.by}
            value={one.by}
            className="flex-1 cursor-pointer border border-iron px-1 py-1.5 text-center text-sm not-first:border-l-0 data-checked:bg-ink data-checked:text-paper"
          >
            {one.name}
          </Radio>
        ))}
      </RadioGroup>
      <div className="mt-3">
        <NumberField
          label={way?.label ?? ""}
          kind={by === "dough" || by === "flour" ? "mass" : "number"}
          value={value}
          onSet={(next) => change({ amount: { by, value: next ?? 1 } })}
          fault={refused?.at(`now.run_settings.amount.${AMOUNTS[by]}`)}
        />
        {by === "baked" && (
          <NumberField
            label="Each weighing, when cool"
            kind="mass"
            value={scenario.cooled}
            usual={dough?.cooled_piece_kg}
            onSet={(cooled) => change({ cooled })}
            fault={refused?.at("now.run_settings.amount.cooled_kg")}
          />
        )}
      </div>
      {dough && dough.left_over_kg >= dough.piece_kg / 100 && (
        <p className="mt-2 text-sm">
          {format.count(dough.pieces, "piece", "pieces")}, and{" "}
          {format.mass(dough.left_over_kg, 0.001)} of dough left over
        </p>
      )}
      {product && (
        <p className="mt-2 text-sm text-iron">
          {product.line.mixer.name}, {product.line.mixer.kind}, mixes{" "}
          {format.mass(product.line.mixer.min_kg, 1)} to {format.mass(product.line.mixer.max_kg, 1)}{" "}
          at a time.
        </p>
      )}
      <Select
        label="Scale resolution"
        className="mt-4"
        value={String(division)}
        options={DIVISIONS.map((kg) => [String(kg), format.mass(kg, kg)])}
        onSet={(kg) => change({ division: Number(kg) })}
        hint={<GlossaryTerm of="scale resolution">the smallest step it shows</GlossaryTerm>}
      />
      {chain?.sheet?.cautions.map((message) => (
        <p key={message} className="mt-3 border-l-4 border-crust bg-faint px-3 py-2 text-sm">
          {format.text(message)}
        </p>
      ))}
    </section>
  );
}
