/** The pages of curves, loaded together when one of them is first asked for. */
export { CurvesPage } from "./CurvesPage";
