import { Link } from "react-router";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";

/** What the run costs, and what a point of water is worth. */
export function CostPanel() {
  const { chain } = useScenarioContext();
  const format = useFormat();
  if (!chain?.dough) return null;
  const { cost, allergens } = chain.dough;
  const { point_of_water: point } = cost;
  const rows = [
    ["a kilo of dough", format.money(cost.per_kg, 3)],
    ["a piece", format.money(cost.per_piece, 3)],
    ["the run", format.money(cost.run)],
    ["dough from 100 kg of flour", format.mass(cost.dough_yield)],
  ] as const;
  return (
    <section aria-label="Cost" className="border-t border-ink pt-3">
      <h2>Cost</h2>
      <dl className="mt-1 text-sm">
        {rows.map(([name, figure]) => (
          <div key={name} className="flex justify-between border-b border-hair py-0.5">
            <dt className="text-iron">{name}</dt>
            <dd className="figure">{figure}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-2 text-sm">
        One point more water, in this run as a day: {format.number(point.more_pieces, 1)} pieces
        more from the same flour, or {format.mass(point.flour_saved_kg, 0.01)} of flour left over
        and {format.money(point.saved)} saved.
      </p>
      {cost.unpriced.length > 0 && (
        <p className="mt-1 text-sm text-iron">
          Without a price, not counted: {cost.unpriced.join(", ")}.{" "}
          <Link to="/plant/ingredients" className="link">
            Set prices
          </Link>
          .
        </p>
      )}
      <h2 className="mt-3">Allergens</h2>
      <p className="mt-1 text-sm">{allergens.message}</p>
      {allergens.caution && (
        <p className="mt-1 border-l-4 border-crust bg-faint px-3 py-1.5 text-sm">
          {allergens.caution}
        </p>
      )}
    </section>
  );
}
