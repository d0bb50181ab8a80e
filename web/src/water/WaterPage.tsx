import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { AssumedReadings } from "../flour/AssumedReadings";
import { useFormula } from "../dough/useFormula";
import { AbsorptionBuildUpFigure } from "../figures/AbsorptionBuildUpFigure";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useScenarioContext } from "../shell/useScenarioContext";
import { ORIGIN } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { CoefficientSheet } from "../plant/CoefficientSheet";
import { usePlantParameters } from "../plant/usePlantParameters";
import { WaterTabs } from "./WaterTabs";

export function WaterPage() {
  const { chain, process, lot, others, product, refused } = useScenarioContext();
  const { scenario, search, change } = useScenario();
  const { lines } = useFormula();
  const format = useFormat();
  const [coefficient, setCoefficient] = useState<string | null>(null);
  const parameters = usePlantParameters();
  const byHand = (
    <div className="w-60">
      <NumberField
        label="Override: dough absorption, % on flour"
        kind="percent"
        value={scenario.water}
        usual={rounded(chain?.water?.floor_pct)}
        onSet={(water) => change({ water })}
        fault={refused?.at("now.run_settings.hydration_pct")}
      />
      {scenario.water !== null && (
        <button type="button" className="link mt-1 text-sm" onClick={() => change({ water: null })}>
          Reset to computed
        </button>
      )}
    </div>
  );
  if (!chain?.water || !lot || !product) {
    return (
      <>
        <WaterTabs />
        <EmptyState link="water" />
        {chain?.error?.link === "water" && byHand}
      </>
    );
  }
  const { water } = chain;
  return (
    <>
      <WaterTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div className="max-w-80">
          <h1>Water</h1>
          <p className="text-sm text-iron">
            {product.name} from{" "}
            {[lot.code, ...others.flatMap((other) => other.lot?.code ?? [])].join(" and ")},{" "}
            {process}
          </p>
        </div>
        <p>
          <span className="figure text-5xl text-water">{format.number(water.floor_pct)}</span>
          <span className="figure text-2xl text-water"> %</span>
          <span className="block text-sm">
            <GlossaryTerm of="dough absorption" />, likely {format.number(water.low_pct)} to{" "}
            {format.number(water.high_pct)}
          </span>
        </p>
        <p className="text-sm">
          <span className="figure block text-2xl">{format.percent(water.weigh_pct)}</span>
          to add; {format.percent(water.ingredient_water_pct)} comes with other ingredients
        </p>
        {byHand}
      </div>
      {water.cautions.map((caution) => (
        <p key={caution.key} className="mt-4 border-l-4 border-crust bg-faint px-3 py-2">
          {sentence(caution.says)}
        </p>
      ))}
      {water.estimated && (
        <p className="mt-4 border-l-4 border-water bg-faint px-3 py-2">
          No curve of this flour: its absorption is estimated from protein, damaged starch and ash,
          which is why the band is wide. Run one, or{" "}
          <Link to={{ pathname: "/water/absorption-model", search }} className="link">
            see what the estimate rests on
          </Link>
          .
        </p>
      )}
      <AssumedReadings assumed={chain.flour.assumed} />
      {water.hold_back && <HoldBack held={water.hold_back} />}
      <div className="mt-5">
        <AbsorptionBuildUpFigure of={water} />
      </div>
      <table className="mt-5 w-full">
        <caption className="sr-only">Absorption build-up in figures</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              adjustment
            </th>
            <th scope="col" className="text-right">
              points
            </th>
            <th scope="col" className="px-6">
              low to high
            </th>
            <th scope="col">origin</th>
            <th scope="col">why</th>
            <th scope="col">
              <span className="sr-only">change the factor</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {water.steps.map((step, at) => (
            <tr key={step.key} className="border-b border-hair">
              <td className="py-1">{step.label}</td>
              <td className="text-right">
                {at === 0 ? format.number(step.points, 2) : format.signed(step.points, 2)}
              </td>
              <td className="px-6 whitespace-nowrap text-iron">
                {step.low === step.high
                  ? ""
                  : `${format.number(step.low, 2)} to ${format.number(step.high, 2)}`}
              </td>
              <td className="pr-4 text-iron">
                <abbr title={ORIGIN[step.origin].word} className="no-underline">
                  {ORIGIN[step.origin].letter}
                </abbr>{" "}
                {ORIGIN[step.origin].word.split(",")[0]}
              </td>
              <td>{format.text(step.reason)}</td>
              <td className="text-right">
                {step.coefficient && (
                  <button
                    type="button"
                    className="link text-sm"
                    aria-label={`Change the factor of ${step.label}`}
                    onClick={() => setCoefficient(step.coefficient ?? null)}
                  >
                    Change
                  </button>
                )}
                {lines.some((line) => line.ingredient === step.key) && (
                  <Link
                    to={{ pathname: "/plant/ingredients", search }}
                    className="link text-sm"
                    aria-label={`Change what ${step.label} does`}
                  >
                    Change
                  </Link>
                )}
              </td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td className="py-1">dough absorption</td>
            <td className="text-right">{format.number(water.floor_pct, 2)}</td>
            <td className="px-6 whitespace-nowrap text-iron">
              {format.number(water.low_pct, 2)} to {format.number(water.high_pct, 2)}
            </td>
            <td />
            <td className="font-normal text-iron">
              the sum of the adjustments; the band is the root of their squared half-ranges
            </td>
            <td />
          </tr>
        </tbody>
      </table>
      <CoefficientSheet
        coefficient={parameters?.coefficients.find((one) => one.house.key === coefficient)}
        onClose={() => setCoefficient(null)}
      />
    </>
  );
}

/** How much water waits at first, how long, and why. */
function HoldBack({ held }: { held: Schemas["HoldBack"] }) {
  const format = useFormat();
  const { points, low, high, wait_min_low, wait_min_high, because } = held;
  return (
    <p className="mt-4 border-l-4 border-water bg-faint px-3 py-2">
      <b>Hold-back water: {format.number(points)} points</b>
      {low !== high && ` (${format.number(low)} to ${format.number(high)})`} at first, and wait{" "}
      {wait_min_low === wait_min_high
        ? format.plain(wait_min_low)
        : `${format.plain(wait_min_low)} to ${format.plain(wait_min_high)}`}{" "}
      min before judging: {because.join("; ")}.
    </p>
  );
}

const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

const rounded = (value: number | undefined) =>
  value === undefined ? undefined : Math.round(value * 10) / 10;
