import { Tabs } from "../shell/Tabs";

const TABS = [
  ["The stair", "/water"],
  ["Other lots", "/water/lots"],
  ["Who holds it", "/water/holders"],
  ["Grains", "/water/grains"],
  ["Rules", "/water/rules"],
  ["What lots teach", "/water/model"],
] as const;

/** The parts of the water link. */
export const WaterTabs = () => <Tabs of="Water" tabs={TABS} />;
