import { CoefficientTable } from "../plant/CoefficientTable";
import { usePlantParameters } from "../plant/usePlantParameters";
import { WaterTabs } from "./WaterTabs";

/** The coefficients of the absorption build-up that may be replaced or left out. */
export function CorrectionFactorsPage() {
  const coefficients = usePlantParameters()?.coefficients ?? [];
  const factors = coefficients.filter((one) => one.subject === "water" && one.optional);
  return (
    <>
      <WaterTabs />
      <h1>Correction factors</h1>
      <p className="mt-1 max-w-prose text-sm text-iron">
        House defaults hold until the plant knows better. A factor changed here moves every dough
        absorption from now on, and no batch planned before. All other coefficients are under Plant.
      </p>
      <CoefficientTable caption="Correction factors" coefficients={factors} />
    </>
  );
}
