export { BatchesPage } from "./BatchesPage";
export { ChartsPage } from "./ChartsPage";
export { CompareBatchesPage } from "./CompareBatchesPage";
export { LearnedPage } from "./LearnedPage";
export { RecallPage } from "./RecallPage";
