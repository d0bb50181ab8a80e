export { BatchesPage } from "./BatchesPage";
export { ChartsPage } from "./ChartsPage";
export { CompareBatchesPage } from "./CompareBatchesPage";
export { LearnedPage } from "./LearnedPage";
export { QuarterPage } from "./QuarterPage";
export { RecallPage } from "./RecallPage";
