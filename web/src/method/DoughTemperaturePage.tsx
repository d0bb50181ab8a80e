import { HeatBalance } from "../figures/HeatBalance";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { useScenarioContext } from "../shell/useScenarioContext";
import { ChainDerivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { ColdIngredients } from "./ColdIngredients";
import { Sensitivities } from "./Sensitivities";
import { MethodTabs } from "./MethodTabs";
import { Preparations } from "./Preparations";
import { MixingRests } from "./MixingRests";
import { MeasuredDoughs } from "./MeasuredDoughs";
import { FrictionFactorMethod } from "./FrictionFactorMethod";
import { waterFrom } from "./waterFrom";
import { useGuide } from "./useMethod";

const DIALS = [
  { key: "target", field: "target_c", label: "Target dough temperature" },
  { key: "flour", field: "flour_c", label: "Flour temperature" },
  { key: "room", field: "room_c", label: "Room" },
  { key: "tap", field: "tap_c", label: "Tap water" },
] as const;

export function DoughTemperaturePage() {
  const { chain, process, product, input, refused } = useScenarioContext();
  const { scenario, change } = useScenario();
  const format = useFormat();
  const guide = useGuide();
  if (!product || !chain?.heat)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  const { heat, method } = chain;
  const usual = {
    target: product.method.target_c,
    flour: product.line.flour_c,
    room: product.line.room_c,
    tap: product.line.tap_c,
  };
  const out = heat.reachable ? undefined : heat.reason;
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Dough temperature</h1>
          <p className="text-sm text-iron">
            {process} on {product.line.name}
          </p>
        </div>
        <p>
          <ChainDerivation link="heat" of="water temperature">
            <span className="figure text-5xl text-water">
              {heat.ice_kg > 0
                ? `${format.mass(heat.ice_kg)} ice`
                : format.temperature(heat.water_c)}
            </span>
          </ChainDerivation>
          <span className="block text-sm">
            {heat.ice_kg > 0
              ? `with ${format.mass(heat.water_kg)} tap water at ${format.temperature(heat.water_c)}`
              : heat.water_from.length > 1
                ? waterFrom(format, heat.water_from, product.line.division_kg)
                : `for ${format.mass(heat.water_kg)} of water`}
          </span>
        </p>
        <p className="text-sm">
          <span className={`figure block text-2xl ${heat.reachable ? "" : "text-stop"}`}>
            {format.temperature(heat.dough_c)}
          </span>
          dough off the mixer
        </p>
        <p className="text-sm">
          <ChainDerivation link="method" of="mixing energy">
            <span className="figure text-2xl">{format.number(method.mixing_kj_per_kg)} kJ/kg</span>
          </ChainDerivation>
          <span className="block">in {format.minutes(method.mixing_min)} of mixing</span>
        </p>
      </div>
      {out && (
        <div className="mt-4 border-l-4 border-stop bg-faint px-3 py-2" role="alert">
          <p className="font-semibold text-stop">
            The target cannot be reached: {format.text(out)}.
          </p>
          {heat.remedies.length > 0 && (
            <>
              <p className="mt-1">Any one of these alone would:</p>
              <ul className="ml-5 list-disc">
                {heat.remedies.map((one) => (
                  <li key={one.remedy}>{format.text(one.says)}</li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      {heat.cautions.map((message) => (
        <p key={message} className="mt-4 border-l-4 border-crust bg-faint px-3 py-2">
          {format.text(message)}
        </p>
      ))}
      <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_27rem]">
        <section aria-label="Heat balance">
          <h2>Heat balance</h2>
          <div className="my-3 grid grid-cols-2 gap-4 sm:grid-cols-4">
            {DIALS.map(({ key, field, label }) => (
              <NumberField
                key={key}
                label={label}
                kind="temperature"
                value={scenario[key]}
                usual={usual[key]}
                onSet={(value) => change({ [key]: value })}
                fault={
                  refused?.at(`now.run_settings.${field}`) ??
                  (key === "target" ? (out ?? undefined) : undefined)
                }
              />
            ))}
          </div>
          <ColdIngredients heat={heat} />
          {product.line.mixer.jacket_kj_per_kg_min != null && (
            <label className="mb-3 flex items-center gap-2">
              <input
                type="checkbox"
                checked={scenario.jacket}
                onChange={(event) => change({ jacket: event.target.checked })}
              />
              The mixer's jacket runs
              <span className="text-sm text-iron">
                and takes {format.number(product.line.mixer.jacket_kj_per_kg_min)} kJ/kg a minute
              </span>
            </label>
          )}
          <HeatBalance terms={heat.terms} of="one batch" />
          <MixingRests rests={heat.rests} steps={chain.sheet?.steps ?? []} />
          <Sensitivities levers={heat.levers} />
          <Preparations preparations={chain.preparations} division={product.line.division_kg} />
        </section>
        <div className="space-y-7">
          {guide?.friction_factor && (
            <FrictionFactorMethod friction_factor={guide.friction_factor} />
          )}
          {guide && <MeasuredDoughs product={product} scenario={input} measured={guide.measured} />}
        </div>
      </div>
    </>
  );
}
