import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { Refusal } from "../shell/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { Quantity } from "../units/Quantity";
import { useFormula } from "./useFormula";

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
  const flour = part?.flour_pct ?? 0;
  const hydration = flour > 0 ? (100 * (part?.water_pct ?? 0)) / flour : 100;
  const dough_pct = chain?.dough?.columns?.whole.total_pct;
  const of = (body: Schemas["StarterStated"]) =>
    answer(api.POST("/api/v1/starter-shares", { body }));
  const asked = {
    hydration_pct: Number(hydration.toFixed(6)),
    ...(dough_pct !== undefined && { dough_pct }),
  };
  const { data: shares } = useQuery({
    queryKey: ["starter", flour, asked],
    queryFn: () => of({ convention: "prefermented_flour", pct: flour, ...asked }),
  });
  const state = useMutation({
    networkMode: "always",
    // One after the other, each on what the one before came to.
    scope: { id: "starter" },
    mutationFn: (stated: { pct?: number; hydration_pct?: number }) =>
      settled(newest, async ({ draft }) => {
        const { flour_pct = 0, water_pct = 0 } = whole(draft).parts[at] ?? {};
        const now = {
          ...asked,
          hydration_pct: flour_pct > 0 ? Number(((100 * water_pct) / flour_pct).toFixed(6)) : 100,
        };
        const is = await of({ convention: "prefermented_flour", pct: flour_pct, ...now });
        return of({ convention, pct: is[`${convention}_pct`], ...now, ...stated });
      }),
    onSuccess: (found) => {
      const flour_pct = Number(found.prefermented_flour_pct.toFixed(4));
      const water_pct = Number(((flour_pct * found.hydration_pct) / 100).toFixed(4));
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
      <div className="mt-1 flex items-end gap-3">
        <label className="text-sm text-iron">
          Stated as
          <select
            aria-label={`How the ${part.name} is stated`}
            className="field text-ink"
            value={convention}
            onChange={(event) => setConvention(event.target.value as Convention)}
          >
            {CONVENTIONS.map(([key, word]) => (
              <option key={key} value={key}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <div className="w-20 shrink-0">
          <Quantity
            label="Share"
            kind="percent"
            value={shares ? Number(shares[`${convention}_pct`].toFixed(2)) : null}
            onSet={(pct) => state.mutate({ pct: pct ?? 0 })}
            fault={state.error instanceof Refused ? state.error.at("pct") : undefined}
          />
        </div>
        <div className="w-20 shrink-0">
          <Quantity
            label="Hydration"
            kind="percent"
            value={Number(hydration.toFixed(2))}
            onSet={(next) => state.mutate({ hydration_pct: next ?? 100 })}
          />
        </div>
      </div>
      <Refusal error={state.error} placed={/^pct$/} />
    </div>
  );
}
