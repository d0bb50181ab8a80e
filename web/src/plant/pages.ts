/** The pages of the plant, loaded together when one of them is first asked for. */
export { CoefficientsPage } from "./CoefficientsPage";
export { FloursPage } from "./FloursPage";
export { IngredientsPage } from "./IngredientsPage";
export { LinesPage } from "./LinesPage";
export { MillsPage } from "./MillsPage";
export { ProductsPage } from "./ProductsPage";
export { SettingsPage } from "./SettingsPage";
