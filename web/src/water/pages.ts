/** The pages of this link, loaded together when one of them is first asked for. */
export { AbsorptionModelPage } from "./AbsorptionModelPage";
export { CompareProductLotsPage } from "./CompareProductLotsPage";
export { CorrectionFactorsPage } from "./CorrectionFactorsPage";
export { GrainsPage } from "./GrainsPage";
export { WaterDistributionPage } from "./WaterDistributionPage";
export { WaterPage } from "./WaterPage";
