import type { Schemas } from "../api/client";
import { Select } from "../form/Select";

const STATED: ["no" | "contains" | "may", string][] = [
  ["no", "no"],
  ["contains", "contains"],
  ["may", "may contain"],
];

type Statement = Schemas["AllergenStatement"];

/** The allergens a label must name, with the word for each. */
const ALLERGENS: Record<Schemas["Allergen"], string> = {
  gluten: "cereals containing gluten",
  wheat: "wheat",
  crustaceans: "crustaceans",
  egg: "egg",
  fish: "fish",
  peanut: "peanut",
  soy: "soy",
  milk: "milk",
  nuts: "tree nuts",
  celery: "celery",
  mustard: "mustard",
  sesame: "sesame",
  sulphite: "sulphite",
  lupin: "lupin",
  molluscs: "molluscs",
};

const words = (of: Schemas["Allergen"][]) => of.map((one) => ALLERGENS[one]).join(", ");

/** What is stated of an ingredient or a flour, in words. */
export function message(stated: Statement | null | undefined): string {
  if (stated == null) return "not stated";
  const { contains, may_contain } = stated;
  if (contains.length === 0 && may_contain.length === 0) return "none";
  return [words(contains), may_contain.length > 0 && `may contain ${words(may_contain)}`]
    .filter(Boolean)
    .join("; ");
}

interface Props {
  stated: Statement | null;
  onSet: (stated: Statement | null) => void;
}

/** What its supplier states of the allergens in it: unknown until somebody says. */
export function AllergensOf({ stated, onSet }: Props) {
  return (
    <fieldset className="mt-3 text-sm">
      <legend className="text-iron">Allergens, as its supplier states them</legend>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={stated !== null}
          onChange={() => onSet(stated ? null : { contains: [], may_contain: [] })}
        />
        They are stated; none but those named here
      </label>
      {stated && (
        <div className="mt-1 grid grid-cols-1 gap-x-8 gap-y-1 sm:grid-cols-2">
          {(Object.keys(ALLERGENS) as Schemas["Allergen"][]).map((one) => (
            <Select
              key={one}
              label={ALLERGENS[one]}
              place="beside"
              className="flex items-center justify-between gap-2"
              value={
                stated.contains.includes(one)
                  ? "contains"
                  : stated.may_contain.includes(one)
                    ? "may"
                    : "no"
              }
              options={STATED}
              onSet={(value) => {
                const without = (of: Schemas["Allergen"][]) => of.filter((it) => it !== one);
                onSet({
                  contains: [...without(stated.contains), ...(value === "contains" ? [one] : [])],
                  may_contain: [...without(stated.may_contain), ...(value === "may" ? [one] : [])],
                });
              }}
            />
          ))}
        </div>
      )}
    </fieldset>
  );
}
