import { Tabs } from "../shell/Tabs";

const TABS = [
  ["Dough temperature", "/method"],
  ["Stages", "/method/stages"],
  ["Mixer and line", "/method/line"],
  ["Sponge", "/method/sponge"],
  ["Straight or sponge", "/method/straight-or-sponge"],
  ["Fermentation", "/method/fermentation"],
  ["Starter", "/method/starter"],
  ["Schedule", "/method/schedule"],
  ["Production run", "/method/production-run"],
] as const;

/** The parts of the method link. */
export const MethodTabs = () => <Tabs of="Method" tabs={TABS} />;
