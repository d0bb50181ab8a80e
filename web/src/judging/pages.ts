/** The pages of judging, loaded together when one of them is first asked for. */
export { JudgePage } from "./JudgePage";
export { ScoresPage } from "./ScoresPage";
export { StandardPage } from "./StandardPage";
