/** The pages of this link, loaded together when one of them is first asked for. */
export { DoughTemperaturePage } from "./DoughTemperaturePage";
export { FermentationPage } from "./FermentationPage";
export { LinePage } from "./LinePage";
export { ProcessComparisonPage } from "./ProcessComparisonPage";
export { ProductionRunPage } from "./ProductionRunPage";
export { SchedulePage } from "./SchedulePage";
export { SpongePage } from "./SpongePage";
export { StagesPage } from "./StagesPage";
export { StarterPage } from "./StarterPage";
