import type { Schemas } from "../api/client";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";

/** The floor's own rule beside the heat balance. */
export function FrictionFactorMethod({
  friction_factor,
}: {
  friction_factor: Schemas["FrictionFactor"];
}) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const { friction, water_c } = friction_factor;
  const said = (celsius: number) => (celsius >= 0 ? format.temperature(celsius) : "ice");
  return (
    <section aria-labelledby="thumb">
      <h2 id="thumb">Friction factor method</h2>
      <table className="mt-1 w-full">
        <caption className="sr-only">
          Water temperature by the friction factor method and heat balance
        </caption>
        <tbody>
          <tr className="border-t border-hair">
            <th scope="row" className="py-1">
              friction factor method
            </th>
            <td className="figure text-right text-lg">{said(water_c.typical)}</td>
            <td className="pl-3 text-right text-sm text-iron">
              likely {format.temperature(water_c.low)} to {format.temperature(water_c.high)}
            </td>
          </tr>
          <tr className="border-t border-hair">
            <th scope="row" className="py-1">
              heat balance
            </th>
            <td className="figure text-right text-lg text-water">
              {said(friction_factor.balance_c)}
            </td>
            <td className="pl-3 text-right text-sm text-iron">before ice</td>
          </tr>
          {friction_factor.classic_ice_kg > 0 && (
            <tr className="border-t border-hair">
              <th scope="row" className="py-1">
                ice by the friction factor method
              </th>
              <td className="figure text-right text-lg">
                {format.mass(friction_factor.classic_ice_kg)}
              </td>
              <td className="pl-3 text-right text-sm text-iron">
                water · (tap − wanted) / (tap + {preferences.temperature === "F" ? 112 : 80})
              </td>
            </tr>
          )}
        </tbody>
      </table>
      {friction_factor.disagree && (
        <p className="mt-1 border-l-4 border-crust bg-faint px-3 py-1.5 text-sm">
          They differ by {format.apart(water_c.typical - friction_factor.balance_c)}: the rule knows
          neither the masses nor the sponge's weight. Go by the balance, measure the dough, and let
          it teach the rule.
        </p>
      )}
      <p className="mt-1 text-sm text-iron">
        {friction_factor.counts} × target − flour − room{friction_factor.counts > 3 && " − sponge"}{" "}
        − <GlossaryTerm of="friction factor" />; {format.apart(friction.friction_c)} ±{" "}
        {format.apart(friction.sd_c)}{" "}
        {friction_factor.doughs === 0
          ? "(house default until doughs are measured)"
          : `learned from ${format.count(friction_factor.doughs, "dough")}`}
        .
      </p>
    </section>
  );
}
