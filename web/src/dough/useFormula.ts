import { useHand, type Draft } from "../hand/HandProvider";
import { useHeld } from "../shell/useHeld";
import { recorded } from "./formula";

/** The formula in hand, edited or as recorded, and the way to edit it. */
export function useFormula() {
  const { draft, edit } = useHand();
  const { product } = useHeld();
  const now: Draft = draft ?? (product ? recorded(product) : { lines: [] });
  return {
    formula: now,
    lines: now.lines ?? [],
    flours: now.flours ?? [],
    parts: now.parts ?? [],
    set: (change: Partial<Draft>) => edit({ ...now, ...change }),
  };
}
