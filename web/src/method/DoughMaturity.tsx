import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { MaturityFigure } from "../figures/MaturityFigure";
import { maturityWords } from "../figures/maturityWords";
import { useFormat } from "../units/format";

/** How ripe the dough is where it meets the oven, and from what. */
export function DoughMaturity({ maturity }: { maturity: Schemas["DoughMaturity"] }) {
  const format = useFormat();
  const { by } = maturity;
  const flour = by.parts.map(
    (part) => `${format.percent(part.flour_share_pct, 0)} ${format.minutes(part.hours * 60)}`,
  );
  return (
    <section aria-labelledby="maturity">
      <h2 id="maturity">Maturity at the oven</h2>
      <p>
        <b className="figure">{maturityWords(maturity, format)}</b>,{" "}
        {format.minutes(maturity.at_h * 60)} after the first mixing
      </p>
      <div className="mt-2 max-w-2xl">
        <MaturityFigure maturity={maturity} />
      </div>
      <p className="mt-1 max-w-prose text-sm text-iron">
        From {format.number(by.work_kj_per_kg)} kJ/kg of mixing
        {by.fold_sets > 0 && ` and ${format.number(by.fold_sets, 0)} sets of folds`}, a flour of{" "}
        {by.flour_w == null
          ? "a usual W, which is not stated"
          : `W ${format.number(by.flour_w, 0)}`}
        ; flour wetted for: {flour.join(", ")}, at {format.temperature(by.mean_c)} on the mean; gas{" "}
        {format.number(by.gas_ml_per_g)} ml/g. A house index (H), not a measurement:{" "}
        <Link className="link" to="/plant/coefficients?q=matur">
          its coefficients
        </Link>{" "}
        are yours to correct by pull test and tap.
      </p>
    </section>
  );
}
