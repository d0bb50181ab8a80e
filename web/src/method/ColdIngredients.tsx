import { useFormula } from "../dough/useFormula";
import { useNumbers } from "../dough/useNumbers";
import { useHand } from "../hand/HandProvider";
import { useHeld } from "../shell/useHeld";
import { Quantity } from "../units/Quantity";

/** Where it is kept, as cold as the house takes it. */
const KEPT_C = { room: undefined, refrigerator: 4, freezer: -18 };

/** Ingredients that do not come at the room's temperature, and how cold they are tonight. */
export function ColdIngredients() {
  const { hand, change } = useHand();
  const { lines } = useFormula();
  const { refused } = useHeld();
  const known = useNumbers()?.ingredients ?? [];
  const cold = lines.flatMap(({ ingredient }) => {
    const facts = known.find((one) => one.ingredient === ingredient);
    const at = hand.cold.findIndex(([one]) => one === ingredient);
    const kept = facts?.kept ?? "room";
    return facts && (at >= 0 || kept !== "room")
      ? [{ ingredient, label: facts.label, kept, at }]
      : [];
  });
  if (cold.length === 0) return null;
  return (
    <div className="mb-3 grid grid-cols-2 gap-4 sm:grid-cols-4">
      {cold.map(({ ingredient, label, kept, at }) => (
        <Quantity
          key={ingredient}
          label={`${label}, from the ${kept}`}
          kind="temperature"
          value={hand.cold[at]?.[1] ?? null}
          usual={KEPT_C[kept]}
          onSet={(celsius) =>
            change((now) => ({
              cold: [
                ...now.cold.filter(([one]) => one !== ingredient),
                ...(celsius === null ? [] : [[ingredient, celsius] as [string, number]]),
              ],
            }))
          }
          fault={refused?.at(`now.knobs.ingredients[${at}].temperature_c`)}
        />
      ))}
    </div>
  );
}
