import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Stages and heat", "/method"],
  ["Rise", "/method/rise"],
] as const;

/** The parts of the method link. */
export const MethodTabs = () => <Tabs of="Method" tabs={TABS} />;
