import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Stages and heat", "/method"],
  ["Rise", "/method/rise"],
  ["The day", "/method/day"],
] as const;

/** The parts of the method link. */
export const MethodTabs = () => <Tabs of="Method" tabs={TABS} />;
