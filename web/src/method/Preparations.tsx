import type { Schemas } from "../api/client";
import { VESSELS } from "../dough/formula";
import { HeatBalance } from "../figures/HeatBalance";
import { ChainDerivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { waterFrom } from "./waterFrom";

interface Props {
  preparations: Schemas["PreparationHeat"][];
  /** The scale's division, kg. */
  division: number;
}

/** The heat of what is made before the dough: its water, what it comes to, and when it is cool. */
export function Preparations({ preparations, division }: Props) {
  const format = useFormat();
  if (preparations.length === 0) return null;
  return (
    <section aria-label="Preparations" className="mt-8">
      <h2>
        <ChainDerivation link="preparations" of="the heat of preparations">
          Preparations
        </ChainDerivation>
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full text-sm">
          <thead>
            <tr>
              <th scope="col" className="min-w-32 pr-4 pb-1">
                made before
              </th>
              <th scope="col" className="pr-4 pb-1">
                its water
              </th>
              <th scope="col" className="pr-4 pb-1">
                as made
              </th>
              <th scope="col" className="pr-4 pb-1">
                rests
              </th>
              <th scope="col" className="pb-1">
                meets the dough
              </th>
            </tr>
          </thead>
          <tbody>
            {preparations.map((one, at) => (
              <tr key={at} className="border-t border-hair align-top">
                <th scope="row" className="py-1.5 pr-4 text-ink">
                  {one.name}
                  <span className="block font-normal text-iron">
                    {format.mass(one.kg, division)}, {VESSELS[one.vessel]}
                    {one.mixing_kj_per_kg >= 1 && `, mixed ${format.minutes(one.mixing_min)}`}
                  </span>
                </th>
                <td className="py-1.5 pr-4">
                  <span className="figure text-lg text-water">
                    {one.ice_kg > 0
                      ? `${format.mass(one.ice_kg, division)} ice`
                      : format.temperature(one.water_c)}
                  </span>
                  <span className="block text-iron">
                    {one.ice_kg > 0
                      ? `with ${format.mass(one.water_kg, division)} at ${format.temperature(one.water_c)}`
                      : one.water_from.length > 1
                        ? waterFrom(format, one.water_from, division)
                        : format.mass(one.water_kg, division)}
                  </span>
                </td>
                <td className="py-1.5 pr-4">
                  <span
                    className={`figure text-lg whitespace-nowrap ${one.reason ? "text-stop" : ""}`}
                  >
                    {format.temperature(one.made_c)}
                  </span>
                  <span className="block whitespace-nowrap text-iron">
                    {one.target_c == null
                      ? "from its water"
                      : `wanted ${format.temperature(one.target_c)}`}
                  </span>
                  {one.reason && (
                    <span className="block font-semibold text-stop">{format.text(one.reason)}</span>
                  )}
                </td>
                <td className="py-1.5 pr-4">
                  {one.rests_min > 0
                    ? `${format.minutes(one.rests_min)} at ${format.temperature(one.around_c, 0)}`
                    : "in no stage of its own"}
                  {one.cool_after_min && (
                    <span
                      className={`block ${one.is_hot ? "font-semibold text-stop" : "text-iron"}`}
                    >
                      below {format.temperature(one.cool_c, 0)} after{" "}
                      {format.about(one.cool_after_min)}
                    </span>
                  )}
                </td>
                <td className="py-1.5">
                  <span className={`figure text-lg ${one.is_hot ? "text-stop" : ""}`}>
                    {format.temperature(one.meets_c)}
                  </span>
                  <span className="block text-iron">
                    {one.cooled_c == null
                      ? "as stated, or usual"
                      : Math.abs(one.cooled_c - one.meets_c) < 0.05
                        ? "after its rest"
                        : `stated; after its rest ${format.temperature(one.cooled_c)}`}
                  </span>
                  {one.is_hot && (
                    <span className="block font-semibold text-stop">
                      too hot for yeast: let it rest longer
                    </span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {preparations.map((one, at) => (
        <details key={at} className="mt-2 text-sm">
          <summary className="link w-fit">Heat balance of {one.name}</summary>
          <div className="mt-2 max-w-2xl">
            <HeatBalance terms={one.terms} of={`one ${one.name}`} />
          </div>
        </details>
      ))}
    </section>
  );
}
