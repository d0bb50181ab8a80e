import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Mills", "/plant/mills"],
  ["Flours", "/plant/flours"],
  ["Products", "/plant/products"],
  ["Lines", "/plant/lines"],
  ["Ingredients", "/plant/ingredients"],
  ["Coefficients", "/plant/coefficients"],
  ["Settings", "/plant/settings"],
] as const;

/** What the plant has, beside the chain. */
export const PlantTabs = () => <Tabs of="Plant" tabs={TABS} />;
