import { useFlours } from "../scenario/useFlours";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormula } from "./useFormula";
import { PARTS } from "./formula";
import { usePlantParameters } from "../plant/usePlantParameters";

/** What may come into a formula: an ingredient, another flour, a part made before. */
export function AddToFormula() {
  const { product } = useScenarioContext();
  const { lines, flours, set } = useFormula();
  const known = useFlours() ?? [];
  const ingredients = usePlantParameters()?.ingredients ?? [];
  if (!product) return null;
  const main = { name: product.flour.name, share_pct: 100 };
  const addFlour = (name: string) =>
    set(({ flours }) => {
      const [first = main, ...rest] = flours;
      const from = { ...first, share_pct: (first.share_pct ?? 100) - 10 };
      return { flours: [from, ...rest, { name, share_pct: 10 }] };
    });
  const split = (kind: keyof typeof PARTS) =>
    set(({ parts }) => {
      const { part } = PARTS[kind];
      const left = 100 - parts.reduce((sum, one) => sum + (one.flour_pct ?? 0), 0);
      const twice = parts.filter((one) => one.kind === kind).length;
      const name = twice > 0 ? `${part.name ?? kind} ${twice + 1}` : (part.name ?? kind);
      return {
        parts: [...parts, { ...part, name, flour_pct: Math.min(left, part.flour_pct ?? 0) }],
      };
    });
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
          .filter((name) => name !== main.name && !flours.some((flour) => flour.name === name))
          .map((name) => [name, name])}
        onChoose={addFlour}
      />
      <AddMenu
        label="Add preferment or soaker"
        options={Object.entries(PARTS).map(([kind, { word }]) => [kind, word])}
        onChoose={(kind) => split(kind as keyof typeof PARTS)}
      />
    </div>
  );
}

interface ChoiceProps {
  label: string;
  options: [string, string][];
  onChoose: (value: string) => void;
}

/** A choice that acts, and shows its own name again. */
function AddMenu({ label, options, onChoose }: ChoiceProps) {
  return (
    <select
      aria-label={label}
      className="border-b border-iron bg-paper py-1"
      value=""
      onChange={(event) => onChoose(event.target.value)}
    >
      <option value="">{label} …</option>
      {options.map(([value, word]) => (
        <option key={value} value={value}>
          {word}
        </option>
      ))}
    </select>
  );
}
