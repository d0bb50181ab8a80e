import { Tabs } from "../shell/Tabs";

const TABS = [
  ["This lot", "/flour"],
  ["What changed", "/flour/change"],
  ["Drift", "/flour/drift"],
  ["Curves", "/flour/curves"],
  ["Specification", "/flour/specification"],
  ["Blend", "/flour/blend"],
  ["Mend", "/flour/mend"],
  ["Many lots", "/flour/import"],
] as const;

/** The parts of the flour link. */
export const FlourTabs = () => <Tabs of="Flour" tabs={TABS} />;
