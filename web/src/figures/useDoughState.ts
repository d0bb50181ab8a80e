import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** How warm and how far risen a dough is. */
export function useDoughState() {
  const format = useFormat();
  return (dough: Schemas["DoughState"]) =>
    `at ${format.temperature(dough.dough_c)} and +${format.number(dough.rise_pct, 0)} %`;
}
