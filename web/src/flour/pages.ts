/** The pages of this link, loaded together when one of them is first asked for. */
export { BagPage } from "./BagPage";
export { BlendCalculatorPage } from "./BlendCalculatorPage";
export { BulkImportPage } from "./BulkImportPage";
export { CompareLotsPage } from "./CompareLotsPage";
export { ControlChartPage } from "./ControlChartPage";
export { FlourCorrectionPage } from "./FlourCorrectionPage";
export { FlourPage } from "./FlourPage";
export { MillReportPage } from "./MillReportPage";
export { ReceiveFlourPage } from "./ReceiveFlourPage";
export { SpecificationPage } from "./SpecificationPage";
export { LotLabelPage } from "./LotLabelPage";
