import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Formula", "/dough"],
  ["Trials", "/dough/trials"],
  ["Convert a recipe", "/dough/convert"],
  ["Revisions and files", "/dough/revisions"],
  ["Ingredients", "/plant/ingredients"],
  ["New product", "/dough/new"],
] as const;

/** The parts of the dough link. */
export const DoughTabs = () => <Tabs of="Dough" tabs={TABS} />;
