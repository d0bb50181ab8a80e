import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Heat", "/method"],
  ["Stages", "/method/stages"],
  ["Mixer and line", "/method/line"],
  ["Sponge", "/method/sponge"],
  ["Two ways", "/method/two-ways"],
  ["Rise", "/method/rise"],
  ["Starter", "/method/starter"],
  ["The day", "/method/day"],
  ["The run", "/method/run"],
] as const;

/** The parts of the method link. */
export const MethodTabs = () => <Tabs of="Method" tabs={TABS} />;
