import { WaterStair } from "../figures/WaterStair";
import { useHand } from "../hand/HandProvider";
import { NoHand } from "../shell/NoHand";
import { Term } from "../shell/Term";
import { useHeld } from "../shell/useHeld";
import { ORIGIN } from "../shell/Why";
import { useFormat } from "../units/format";
import { Quantity } from "../units/Quantity";

export function WaterPage() {
  const { chain, lot, product, refused } = useHeld();
  const { hand, change } = useHand();
  const format = useFormat();
  const byHand = (
    <div className="w-60">
      <Quantity
        label="Set by hand, all the water on flour"
        kind="percent"
        value={hand.water}
        usual={rounded(chain?.water?.floor_pct)}
        onSet={(water) => change({ water })}
        fault={refused?.at("now.knobs.hydration_pct")}
      />
      {hand.water !== null && (
        <button type="button" className="link mt-1 text-sm" onClick={() => change({ water: null })}>
          Back to the stair
        </button>
      )}
    </div>
  );
  if (!chain?.water || !lot || !product) {
    return (
      <>
        <NoHand link="water" />
        {chain?.trouble?.link === "water" && byHand}
      </>
    );
  }
  const { water } = chain;
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Water</h1>
          <p className="text-sm text-iron">
            {product.name} from {lot.code}, {product.method.process_label}
          </p>
        </div>
        <p>
          <span className="figure text-5xl text-water">{format.number(water.floor_pct)}</span>
          <span className="figure text-2xl text-water"> %</span>
          <span className="block text-sm">
            <Term of="floor water" />, likely {format.number(water.low_pct)} to{" "}
            {format.number(water.high_pct)}
          </span>
        </p>
        <p className="text-sm">
          <span className="figure block text-2xl">{format.percent(water.weigh_pct)}</span>
          to weigh; {format.percent(water.ingredient_water_pct)} comes with other ingredients
        </p>
        {byHand}
      </div>
      {water.cautions.map((caution) => (
        <p key={caution.key} className="mt-4 border-l-4 border-crust bg-faint px-3 py-2">
          {sentence(caution.says)}
        </p>
      ))}
      <div className="mt-5">
        <WaterStair stair={water} />
      </div>
      <table className="mt-5 w-full">
        <caption className="sr-only">The stair in figures</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              step
            </th>
            <th scope="col" className="text-right">
              points
            </th>
            <th scope="col" className="px-6">
              low to high
            </th>
            <th scope="col">origin</th>
            <th scope="col">why</th>
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
              <td>{step.reason}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <td className="py-1">on the floor</td>
            <td className="text-right">{format.number(water.floor_pct, 2)}</td>
            <td className="px-6 whitespace-nowrap text-iron">
              {format.number(water.low_pct, 2)} to {format.number(water.high_pct, 2)}
            </td>
            <td />
            <td className="font-normal text-iron">
              the sum of the steps; the band is the root of their squared half-ranges
            </td>
          </tr>
        </tbody>
      </table>
    </>
  );
}

const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

const rounded = (value: number | undefined) =>
  value === undefined ? undefined : Math.round(value * 10) / 10;
