import type { Schemas } from "../api/client";

/** One place a formula's items are weighed at. */
interface Weighed {
  kg: number;
  off: number;
  division: number;
}

/** What is weighed of an item: a flour by its name, anything else by its ingredient. */
export const itemKey = (item: Schemas["ToWeigh"], several: boolean) =>
  item.ingredient === "flour" && several ? `flour ${item.name}` : item.ingredient;

/** The masses of one list, an item's together. */
export function massesOf(takes: Schemas["ToWeigh"][], several: boolean): Map<string, Weighed> {
  const all = new Map<string, Weighed>();
  for (const item of takes) {
    const key = itemKey(item, several);
    const known = all.get(key);
    all.set(key, {
      kg: item.kg + (known?.kg ?? 0),
      off: item.off_pct,
      division: Math.min(item.division_kg, known?.division ?? item.division_kg),
    });
  }
  return all;
}
