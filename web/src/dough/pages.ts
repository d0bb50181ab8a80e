/** The pages of this link, loaded together when one of them is first asked for. */
export { ConvertRecipePage } from "./ConvertRecipePage";
export { DoughPage } from "./DoughPage";
export { NewProductPage } from "./NewProductPage";
export { RevisionsPage } from "./RevisionsPage";
export { TrialPage } from "./TrialPage";
export { TrialsPage } from "./TrialsPage";
