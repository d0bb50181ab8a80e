import { useFlours } from "../scenario/useFlours";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormula } from "./useFormula";
import { PREPARATIONS } from "./formula";
import { Refusal } from "../form/Refusal";
import { useFormulaEdit } from "./useFormulaEdit";
import { usePlantParameters } from "../plant/usePlantParameters";
import { optionsOf, Select } from "../form/Select";

/** What may come into a formula: an ingredient, another flour, a part made before. */
export function AddToFormula() {
  const { product } = useScenarioContext();
  const { lines, flours, set } = useFormula();
  const edit = useFormulaEdit();
  const known = useFlours() ?? [];
  const ingredients = usePlantParameters()?.ingredients ?? [];
  if (!product) return null;
  const free = ingredients.filter(
    ({ ingredient }) =>
      !["flour", "water"].includes(ingredient) &&
      !lines.some((line) => line.ingredient === ingredient),
  );
  return (
    <div className="screen-only mt-3 flex flex-wrap gap-x-6 gap-y-2 text-sm">
      <AddMenu
        label="Add an ingredient"
        options={free.map((one) => [one.ingredient, one.label])}
        onChoose={(ingredient) =>
          set(({ lines }) => ({ lines: [...lines, { ingredient, pct: 1 }] }))
        }
      />
      <AddMenu
        label="Add a flour"
        options={known
          .map((flour) => flour.name)
          .filter(
            (name) => name !== product.flour.name && !flours.some((flour) => flour.name === name),
          )
          .map((name) => [name, name])}
        onChoose={(name) => edit.mutate({ edit: "add_flour", name })}
      />
      <AddMenu
        label="Add preferment or soaker"
        options={optionsOf(PREPARATIONS)}
        onChoose={(kind) => edit.mutate({ edit: "add_preparation", kind })}
      />
      <Refusal error={edit.error} />
    </div>
  );
}

interface AddProps<T extends string> {
  label: string;
  options: (readonly [T, string])[];
  onChoose: (value: T) => void;
}

/** A choice that acts, and shows its own name again. */
const AddMenu = <T extends string>({ label, options, onChoose }: AddProps<T>) => (
  <Select
    label={label}
    place="hidden"
    value=""
    none={`${label} …`}
    options={options}
    onSet={onChoose}
  />
);
