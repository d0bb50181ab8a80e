import { useMay } from "../session/session";
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

const ACCOUNTS = [
  ["People", "/plant/people"],
  ["Keys", "/plant/keys"],
] as const;
const WATCHED = [
  ["Stations", "/plant/stations"],
  ["Audit trail", "/plant/audit"],
] as const;

/** What the plant has, beside the chain; each person sees what is theirs. */
export function PlantTabs() {
  const administers = useMay("administer");
  const reads = useMay("change") || administers;
  const tabs = [...TABS, ...(administers ? ACCOUNTS : []), ...(reads ? WATCHED : [])];
  return <Tabs of="Plant" tabs={tabs} />;
}
