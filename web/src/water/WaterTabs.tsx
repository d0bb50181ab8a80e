import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Absorption build-up", "/water"],
  ["Compare lots", "/water/compare"],
  ["Water distribution", "/water/distribution"],
  ["Grains", "/water/grains"],
  ["Correction factors", "/water/correction-factors"],
  ["Absorption model", "/water/absorption-model"],
] as const;

/** The parts of the water link. */
export const WaterTabs = () => <Tabs of="Water" tabs={TABS} />;
