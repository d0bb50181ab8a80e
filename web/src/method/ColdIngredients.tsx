import type { Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { NumberField } from "../form/NumberField";

/** Ingredients that do not come at the room's temperature, and how cold they are tonight. */
export function ColdIngredients({ heat }: { heat: Schemas["HeatLink"] }) {
  const { scenario, change } = useScenario();
  const { refused } = useScenarioContext();
  const typedAt = (ingredient: string) => scenario.cold.findIndex(([one]) => one === ingredient);
  const cold = heat.ingredients.filter(
    ({ ingredient, kept }) => kept !== "room" || typedAt(ingredient) >= 0,
  );
  if (cold.length === 0) return null;
  return (
    <div className="mb-3 grid grid-cols-2 gap-4 sm:grid-cols-4">
      {cold.map(({ ingredient, label, kept, temperature_c }) => (
        <NumberField
          key={ingredient}
          label={`${label}, from the ${kept}`}
          kind="temperature"
          value={scenario.cold[typedAt(ingredient)]?.[1] ?? null}
          usual={temperature_c}
          onSet={(celsius) =>
            change((now) => ({
              cold: [
                ...now.cold.filter(([one]) => one !== ingredient),
                ...(celsius === null ? [] : [[ingredient, celsius] as [string, number]]),
              ],
            }))
          }
          fault={refused?.at(`now.run_settings.ingredients[${typedAt(ingredient)}].temperature_c`)}
        />
      ))}
    </div>
  );
}
