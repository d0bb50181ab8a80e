import type { Schemas } from "../api/client";

/** What is weighed of an item: a flour by its name where there are several, else its ingredient. */
export const itemKey = (item: Schemas["ToWeigh"], several: boolean) =>
  item.ingredient === "flour" && several ? `flour ${item.name}` : item.ingredient;

/** The masses of one list by their items. */
export const massesOf = (takes: Schemas["ToWeigh"][] | undefined, several: boolean) =>
  new Map(takes?.map((item) => [itemKey(item, several), item]));
