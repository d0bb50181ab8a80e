import type { Schemas } from "../api/client";
import { store, stored } from "../storage/stored";

export type Draft = Schemas["EditedFormula"];
export type MethodDraft = Schemas["MethodDraft"];

/** What is edited and not yet recorded of a product: it is not in the address. */
export interface Edited {
  draft?: Draft | undefined;
  method?: MethodDraft | undefined;
}

const KEYS = { draft: "ironpeel.formula-draft.2.", method: "ironpeel.method-draft." } as const;

/** Where an edited formula or method of a product is kept. */
export const draftKey = (kind: keyof typeof KEYS, product: string) => KEYS[kind] + product;

type Adds = NonNullable<NonNullable<MethodDraft["stages"]>[number]["adds"]>;

/** What goes in at a stage; earlier it was the ingredient's word alone. */
const additions = (adds: (Adds[number] | Adds[number]["ingredient"])[]): Adds =>
  adds.map((one) => (typeof one === "string" ? { ingredient: one } : one));

/** The edited method of a product, a stage's end and tolerance by their names of today. */
function keptMethod(product: string): MethodDraft | undefined {
  const kept = stored<MethodDraft>(draftKey("method", product));
  const stages = kept?.stages?.map((stage) => {
    const { ends_by, ends_at_rise_pct, window, ...rest } = stage as typeof stage & {
      ends_by?: typeof stage.end_point;
      ends_at_rise_pct?: typeof stage.ends_at;
      window?: typeof stage.tolerance;
    };
    return {
      ...(ends_by && { end_point: ends_by }),
      ...(ends_at_rise_pct != null && { ends_at: ends_at_rise_pct }),
      ...(window && { tolerance: window }),
      ...rest,
      ...(rest.adds && { adds: additions(rest.adds) }),
    };
  });
  return kept && { ...kept, ...(stages && { stages }) };
}

/** What was edited of a product in this browser. */
export const kept = (product: string | null): Edited =>
  product
    ? { draft: stored(draftKey("draft", product)), method: keptMethod(product) }
    : { draft: undefined, method: undefined };

/** Whether something of a product is edited in this browser and not recorded. */
export const isEdited = (product: string) => {
  const { draft, method } = kept(product);
  return draft !== undefined || method !== undefined;
};

export const keep = (product: string, edited: Edited) => {
  for (const kind of ["draft", "method"] as const) store(draftKey(kind, product), edited[kind]);
};
