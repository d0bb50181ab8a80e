import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { useFormula } from "./useFormula";
import { Select } from "../form/Select";
import { Faults } from "../form/Faults";

type Convention = Schemas["StarterConvention"];

export const CONVENTIONS: [Convention, string][] = [
  ["prefermented_flour", "its flour, of all flour"],
  ["on_final_flour", "starter, on the flour added"],
  ["of_dough", "starter, of the whole dough"],
];

/** A starter's share in every convention, and set in any of them. */
export function StarterBox({ at }: { at: number }) {
  const { parts, whole, set } = useFormula();
  const { newest } = useScenario();
  const { chain } = useScenarioContext();
  const format = useFormat();
  const [convention, setConvention] = useState<Convention>("on_final_flour");
  const part = parts[at];
  const dough_pct = chain?.dough?.columns?.whole.total_pct;
  const of = (body: Schemas["StarterStated"]) =>
    answer(api.POST("/api/v1/starter-shares", { body }));
  const dough = { ...(dough_pct !== undefined && { dough_pct }) };
  const stands = (part: Schemas["PreparationInput"] | undefined): Schemas["StarterStated"] => ({
    convention: "prefermented_flour",
    pct: part?.flour_pct ?? 0,
    water_pct: part?.water_pct ?? 0,
    ...dough,
  });
  const { data: shares } = useQuery({
    queryKey: ["starter", stands(part)],
    queryFn: () => of(stands(part)),
  });
  const state = useMutation({
    networkMode: "always",
    // One after the other, each on what the one before came to.
    scope: { id: "starter" },
    mutationFn: (stated: { pct?: number; hydration_pct?: number }) =>
      settled(newest, async ({ draft }) => {
        const is = await of(stands(whole(draft).parts[at]));
        const { hydration_pct } = is;
        return of({ convention, pct: is[`${convention}_pct`], hydration_pct, ...dough, ...stated });
      }),
    onSuccess: (found) => {
      const flour_pct = Number(found.prefermented_flour_pct.toFixed(4));
      const water_pct = Number(found.water_pct.toFixed(4));
      set(({ parts }) => ({
        parts: parts.map((one, index) => (index === at ? { ...one, flour_pct, water_pct } : one)),
      }));
    },
  });
  if (!part) return null;
  return (
    <div className="mt-2">
      <dl className="text-sm">
        {CONVENTIONS.map(([key, word]) => (
          <div key={key} className="flex justify-between border-t border-hair py-0.5">
            <dt className="text-iron">{word}</dt>
            <dd className="figure">{shares && format.percent(shares[`${key}_pct`], 2)}</dd>
          </div>
        ))}
      </dl>
      <Faults error={state.error}>
        <div className="mt-1 flex items-end gap-3">
          <Select
            label="Stated as"
            name={`How the ${part.name} is stated`}
            value={convention}
            options={CONVENTIONS}
            onSet={setConvention}
          />
          <NumberField
            className="w-20 shrink-0"
            label="Share"
            kind="percent"
            value={shares ? Number(shares[`${convention}_pct`].toFixed(2)) : null}
            onSet={(pct) => state.mutate({ pct: pct ?? 0 })}
            field="pct"
          />
          <NumberField
            className="w-20 shrink-0"
            label="Hydration"
            kind="percent"
            value={shares ? Number(shares.hydration_pct.toFixed(2)) : null}
            onSet={(next) => state.mutate({ hydration_pct: next ?? 100 })}
            field="hydration_pct"
          />
        </div>
      </Faults>
    </div>
  );
}
