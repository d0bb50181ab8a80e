import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** A dough of a trial by its place: A is the dough as it is. */
export const doughLetter = (at: number) => String.fromCharCode(65 + at);

/** What a difference to the dough as it is lets one say, in a sentence. */
export function useDifference() {
  const format = useFormat();
  return (beside: Schemas["VariantDifference"] | undefined): string => {
    if (!beside) return "";
    const { total, bakes, loaves } = beside;
    const of = `${format.count(bakes, "bake")} of ${format.count(loaves, "loaf", "loaves")} each`;
    if (!total) return `${of}; too little is marked for a total`;
    const moved = `${format.signed(total.difference)} points (${of})`;
    const limit = format.number(total.limit);
    if (total.says === "variants_differ")
      return `${moved}: real; from ${limit} a difference is seen`;
    if (total.says === "doughs_differ")
      return `${moved}: these two doughs differ; whether the variants do, another bake says`;
    const needed = [
      total.loaves_needed && `${format.count(total.loaves_needed, "loaf", "loaves")} of each`,
      total.bakes_needed && total.bakes_needed > bakes && format.count(total.bakes_needed, "bake"),
    ].filter(Boolean);
    const would = needed.length ? `; ${needed.join(", or ")} would show one of this size` : "";
    return `${moved}: not shown; a difference under ${limit} would not be seen${would}`;
  };
}
