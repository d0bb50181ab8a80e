import type { Draft } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { recorded } from "../scenario/documents";

type Whole = Draft & Required<Pick<Draft, "lines" | "flours" | "parts">>;

/** The formula in use, edited or as recorded, and the way to edit the newest of it. */
export function useFormula() {
  const { draft, edit } = useScenario();
  const { product } = useScenarioContext();
  const whole = (draft: Draft | undefined): Whole => ({
    lines: [],
    flours: [],
    parts: [],
    ...(draft ?? (product && recorded(product))),
  });
  const formula = whole(draft);
  return {
    formula,
    ...formula,
    whole,
    set: (change: (now: Whole) => Partial<Draft>) =>
      edit((draft) => {
        const now = whole(draft);
        return { ...now, ...change(now) };
      }),
  };
}
