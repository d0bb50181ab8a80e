import { Link } from "react-router";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { useFormula } from "./useFormula";
import { PREPARATIONS, VESSELS, type Part } from "./formula";
import { usePreparationKinds } from "./usePreparationKinds";
import { StarterBox } from "./StarterBox";
import { optionsOf, Select } from "../form/Select";

/** What is made before the final dough: its name, temperature and how wet it is. */
export function PreparationsPanel() {
  const { parts, flours, set } = useFormula();
  const { chain, refused } = useScenarioContext();
  const format = useFormat();
  const { search } = useScenario();
  const kinds = usePreparationKinds();
  if (parts.length === 0) return null;
  const change = (at: number, next: Partial<Part>) =>
    set(({ parts }) => ({
      parts: parts.map((part, index) => (index === at ? { ...part, ...next } : part)),
    }));
  return (
    <section aria-label="Preferments and soakers" className="border-t border-ink pt-3">
      <h2>Preferments and soakers</h2>
      {parts.map((part, at) => {
        const flour = part.flour_pct ?? 0;
        const usual = kinds?.find((one) => one.kind === part.kind)?.usual_c;
        const hydration = chain?.dough?.columns?.parts[at]?.hydration_pct;
        const caution = chain?.sheet?.parts[at]?.caution;
        const heat = chain?.preparations[at];
        return (
          <div key={at} className="mt-2 border-b border-hair pb-3">
            <p className="flex items-baseline justify-between">
              <b>{part.name}</b>
              <button
                type="button"
                className="link text-sm"
                onClick={() => set(({ parts }) => ({ parts: parts.filter((_, i) => i !== at) }))}
              >
                Final dough
              </button>
            </p>
            <p className="text-sm text-iron">
              {PREPARATIONS[part.kind]}, {format.percent(flour)} of the flour
              {hydration != null && `, hydration ${format.percent(hydration, 0)}`}
            </p>
            <div className="mt-1 flex gap-4">
              <NumberField
                className="w-28"
                label="At the mixer"
                kind="temperature"
                value={part.temperature_c ?? null}
                usual={heat && part.temperature_c == null ? heat.meets_c : usual}
                onSet={(temperature_c) => change(at, { temperature_c: temperature_c ?? undefined })}
                fault={refused?.at(`parts[${at}].temperature_c`)}
              />
              {flours.length > 1 && (
                <Select
                  label="Its flour"
                  value={part.flour ?? flours[0]?.name ?? ""}
                  options={flours.flatMap(({ name }) => (name ? [[name, name] as const] : []))}
                  onSet={(flour) => change(at, { flour })}
                />
              )}
            </div>
            <div className="mt-2 grid grid-cols-3 gap-3">
              <Select
                label="Made in"
                value={part.vessel ?? heat?.vessel ?? "tub"}
                options={optionsOf(VESSELS)}
                onSet={(vessel) => change(at, { vessel })}
              />
              {part.kind !== "sponge" && (
                <>
                  <NumberField
                    label="Its water"
                    kind="temperature"
                    value={part.water_c ?? null}
                    usual={heat?.water_c}
                    onSet={(water_c) =>
                      change(at, {
                        water_c: water_c ?? undefined,
                        ...(water_c != null && { set_c: undefined }),
                      })
                    }
                    fault={refused?.at(`parts[${at}].water_c`)}
                  />
                  <NumberField
                    label="Made at"
                    kind="temperature"
                    value={part.set_c ?? null}
                    usual={heat?.made_c}
                    onSet={(set_c) =>
                      change(at, {
                        set_c: set_c ?? undefined,
                        ...(set_c != null && { water_c: undefined }),
                      })
                    }
                    fault={refused?.at(`parts[${at}].set_c`)}
                  />
                </>
              )}
            </div>
            {heat && (
              <p className="mt-1 text-sm text-iron">
                {heat.ice_kg > 0 && `${format.mass(heat.ice_kg)} of its water as ice; `}
                made at {format.temperature(heat.made_c)}
                {heat.cool_after_min &&
                  `, below ${format.temperature(heat.cool_c, 0)} after ${format.about(heat.cool_after_min)}`}
                {heat.is_hot && (
                  <b className="text-stop">, too hot for yeast when it is mixed in</b>
                )}
                {" · "}
                <Link className="link" to={{ pathname: "/method", search }}>
                  its heat
                </Link>
              </p>
            )}
            {part.kind === "starter" && <StarterBox at={at} />}
            {caution && (
              <p className="mt-2 border-l-4 border-crust bg-faint px-3 py-1.5 text-sm">
                {format.text(caution)}
              </p>
            )}
          </div>
        );
      })}
    </section>
  );
}
