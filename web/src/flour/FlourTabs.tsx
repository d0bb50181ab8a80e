import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Certificate", "/flour"],
  ["Compare lots", "/flour/compare"],
  ["Control chart", "/flour/control-chart"],
  ["Curves", "/flour/curves"],
  ["Specification", "/flour/specification"],
  ["Blend", "/flour/blend"],
  ["Flour correction", "/flour/correction"],
  ["Bulk import", "/flour/import"],
] as const;

/** The parts of the flour link. */
export const FlourTabs = () => <Tabs of="Flour" tabs={TABS} />;
