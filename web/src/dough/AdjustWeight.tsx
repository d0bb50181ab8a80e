import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { runSettingsOf } from "../scenario/scenario";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { useScenarioContext } from "../shell/useScenarioContext";
import { NumberField } from "../form/NumberField";
import { useFormula } from "./useFormula";
import { useLabels } from "../plant/usePlantParameters";
import { Select } from "../form/Select";
import { Form } from "../form/Form";

const KEEPS: [Schemas["KeptConstant"], string][] = [
  ["flour", "flour"],
  ["dough", "the dough"],
  ["water", "water"],
];

/** One mass of a dough changed, while flour, the dough or water stays as it is. */
export function AdjustWeight() {
  const { input } = useScenarioContext();
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
          run_settings: runSettingsOf(scenario),
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
      <Form
        className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2"
        error={change.error}
        onSubmit={() => change.mutate()}
      >
        <Select
          label="Ingredient"
          value={ingredient}
          options={names.map((name) => [name, labels(name)])}
          onSet={choose}
        />
        <NumberField
          className="w-28"
          label="New weight, one batch"
          kind="mass"
          value={kg}
          onSet={setKg}
          field="kg"
        />
        <Select label="Keep constant" value={keep} options={KEEPS} onSet={setKeep} />
        <button type="submit" className="act" disabled={change.isPending || kg === null}>
          Adjust
        </button>
      </Form>
      <p className="mt-1 text-sm text-iron">
        Water is then an override; reset it on the water page.
        {parts.length > 0 && " Parts keep their percents."}
      </p>
    </section>
  );
}
