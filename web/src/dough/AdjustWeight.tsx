import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { batchOf, runSettingsOf } from "../scenario/scenario";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { Refusal } from "../shell/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { NumberField } from "../units/NumberField";
import { useFormula } from "./useFormula";
import { useLabels } from "../plant/usePlantParameters";
import { Select } from "../shell/Select";

const KEEPS: [Schemas["KeptConstant"], string][] = [
  ["flour", "flour"],
  ["dough", "the dough"],
  ["water", "water"],
];

/** One mass of a dough changed, while flour, the dough or water stays as it is. */
export function AdjustWeight() {
  const { input, product } = useScenarioContext();
  const { set, newest } = useScenario();
  const { lines, parts, whole } = useFormula();
  const labels = useLabels();
  const [ingredient, choose] = useState("salt");
  const [keep, setKeep] = useState<Schemas["KeptConstant"]>("flour");
  const [kg, setKg] = useState<number | null>(null);
  const change = useMutation({
    networkMode: "always",
    mutationFn: () =>
      settled(newest, ({ scenario, draft, method }) => {
        if (!input) throw new Error("asked without a product");
        const now = {
          ...input,
          run_settings: runSettingsOf(scenario, product && batchOf(product, draft)),
          draft,
          method,
        };
        return answer(
          api.POST("/api/v1/chain/weight-adjustment", {
            body: { scenario: now, ingredient, keep, ...(kg !== null && { kg }) },
          }),
        );
      }),
    onSuccess: (changed) => {
      setKg(null);
      set(
        {
          amount: { by: "dough", value: Number(changed.dough_kg.toFixed(3)) },
          water: Number(changed.hydration_pct.toFixed(3)),
        },
        { draft: { ...whole(newest().draft), lines: changed.lines } },
      );
    },
  });
  const names = ["water", ...lines.map((line) => line.ingredient)];
  return (
    <section aria-labelledby="one-mass" className="screen-only border-t border-ink pt-3">
      <h2 id="one-mass">Adjust a weight</h2>
      <form
        className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate();
        }}
      >
        <label className="text-sm text-iron">
          Ingredient
          <select
            aria-label="Ingredient"
            className="field text-ink"
            value={ingredient}
            onChange={(event) => choose(event.target.value)}
          >
            {names.map((name) => (
              <option key={name} value={name}>
                {labels(name)}
              </option>
            ))}
          </select>
        </label>
        <div className="w-28">
          <NumberField
            label="New weight, one batch"
            kind="mass"
            value={kg}
            onSet={setKg}
            fault={change.error instanceof Refused ? change.error.at("kg") : undefined}
          />
        </div>
        <Select
          label="Keep constant"
          value={keep}
          options={KEEPS}
          onSet={(value) => setKeep(value as Schemas["KeptConstant"])}
        />
        <button type="submit" className="act" disabled={change.isPending || kg === null}>
          Adjust
        </button>
      </form>
      <Refusal error={change.error} placed={/^kg$/} />
      <p className="mt-1 text-sm text-iron">
        Water is then an override; reset it on the water page.
        {parts.length > 0 && " Parts keep their percents."}
      </p>
    </section>
  );
}
