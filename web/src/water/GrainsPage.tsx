import type { Schemas } from "../api/client";
import { EmptyState } from "../shell/EmptyState";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { useWaterDistribution } from "./useWaterDistribution";
import { WaterTabs } from "./WaterTabs";

/** How the grains of this dough behave beside white wheat, and the mix by its parts. */
export function GrainsPage() {
  const { chain, product } = useScenarioContext();
  const format = useFormat();
  const { data: held } = useWaterDistribution(0, undefined);
  if (!chain || !product || !held)
    return (
      <>
        <WaterTabs />
        <EmptyState link="water" />
      </>
    );
  const { grains } = held;
  const times = ({ typical, low, high }: Schemas["Estimate"]) =>
    `${format.number(typical, 2)}${low === high ? "" : ` (${format.number(low, 2)} to ${format.number(high, 2)})`}`;
  const back = chain.water?.hold_back;
  return (
    <>
      <WaterTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>Grains</h1>
          <p className="text-sm text-iron">{product.name}: a mix behaves by its parts</p>
        </div>
        <p className="text-sm">
          <span className="figure block text-2xl">{format.signed(grains.water_points)} points</span>
          water by the grains themselves
        </p>
        {grains.has_gluten && (
          <p className="text-sm">
            <span className="figure block text-2xl">× {times(grains.mixing)}</span>
            mixing, beside white wheat
          </p>
        )}
        <p className="text-sm">
          <span className="figure block text-2xl">× {times(grains.fermentation)}</span>
          speed of fermentation
        </p>
        {back && (
          <p className="text-sm">
            <span className="figure block text-2xl">{format.number(back.points)} points</span>
            held back at first, {format.plain(back.wait_min_low)} to{" "}
            {format.plain(back.wait_min_high)} min
          </p>
        )}
      </div>
      <div className="overflow-x-auto">
        <table className="mt-5 w-full">
          <caption className="sr-only">Each grain of the dough</caption>
          <thead>
            <tr className="border-b border-ink">
              {[
                "grain",
                "share",
                "water",
                "mixing ×",
                "fermentation ×",
                "handling",
                "tolerance",
              ].map((word) => (
                <th scope="col" key={word} className="py-1 pr-4">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {grains.grains.map((grain) => (
              <tr key={grain.species} className="border-b border-hair align-top">
                <th scope="row" className="py-1 pr-4 text-base font-semibold text-ink">
                  {grain.label}
                </th>
                <td className="pr-4 whitespace-nowrap">
                  <span className="figure">{format.percent(grain.share_pct, 0)}</span>
                  {grain.whole_grain_pct > 0 && (
                    <span className="block text-sm text-iron">
                      {format.percent(grain.whole_grain_pct, 0)} whole grain
                    </span>
                  )}
                </td>
                <td className="pr-4 text-sm">{grain.water}</td>
                <td className="pr-4 text-sm whitespace-nowrap">{times(grain.mixing)}</td>
                <td className="pr-4 text-sm whitespace-nowrap">{times(grain.fermentation)}</td>
                <td className="pr-4 text-sm">{grain.handling}</td>
                <td className="text-sm">{grain.tolerance}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {!grains.has_gluten && chain.dough?.allergens.caution && (
        <p className="mt-4 border-l-4 border-crust bg-faint px-3 py-2">
          {chain.dough.allergens.caution}
        </p>
      )}
      <p className="mt-3 text-sm text-iron">
        House defaults (H), to be replaced by what your own doughs do; the offsets of water are
        among the rules.
      </p>
    </>
  );
}
