import { useMutation } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { settled } from "../scenario/settled";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormula } from "./useFormula";

/** Makes edits that move several numbers of the newest formula, one after the other. */
export function useFormulaEdit() {
  const { newest } = useScenario();
  const { product } = useScenarioContext();
  const { whole, set } = useFormula();
  return useMutation({
    networkMode: "always",
    scope: { id: "formula edit" },
    mutationFn: (edit: Schemas["FormulaEdit"]) =>
      settled(newest, ({ draft }) => {
        const { lines, flours, parts } = whole(draft);
        const main_flour = product?.flour.name ?? "";
        const body = { formula: { lines, flours, parts }, main_flour, edit };
        return answer(api.POST("/api/v1/formula-edit", { body }));
      }),
    onSuccess: (formula) => set(() => formula),
  });
}
