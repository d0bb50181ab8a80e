import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Mixing sheet", "/floor"],
  ["Board", "/board"],
] as const;

/** The parts of the floor link. */
export const FloorTabs = () => <Tabs of="Floor" tabs={TABS} />;
