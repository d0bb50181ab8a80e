export { BatchesPage } from "./BatchesPage";
export { ChartsPage } from "./ChartsPage";
export { CompareBatchesPage } from "./CompareBatchesPage";
export { FaultsPage } from "./FaultsPage";
export { LearnedPage } from "./LearnedPage";
export { QuarterPage } from "./QuarterPage";
export { RecallPage } from "./RecallPage";
