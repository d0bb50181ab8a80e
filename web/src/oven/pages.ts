/** The pages of this link, loaded together when one of them is first asked for. */
export { BakePage } from "./BakePage";
export { BakesPage } from "./BakesPage";
