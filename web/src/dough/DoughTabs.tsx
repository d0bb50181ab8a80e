import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Formula", "/dough"],
  ["Variants", "/dough/variants"],
  ["By amounts", "/dough/amounts"],
  ["Revisions and files", "/dough/revisions"],
  ["Ingredients", "/dough/ingredients"],
  ["New product", "/dough/new"],
] as const;

/** The parts of the dough link. */
export const DoughTabs = () => <Tabs of="Dough" tabs={TABS} />;
