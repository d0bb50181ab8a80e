import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Batches", "/results"],
  ["Control charts", "/results/charts"],
  ["Compare batches", "/results/compare"],
  ["Scores", "/results/scores"],
  ["Fault finder", "/results/faults"],
  ["Learned numbers", "/results/learned"],
  ["Recall", "/results/recall"],
  ["Quarter against quarter", "/results/quarter"],
] as const;

/** The parts of the results link. */
export const ResultsTabs = () => <Tabs of="Results" tabs={TABS} />;
