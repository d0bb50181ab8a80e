import { PlantSettings } from "./PlantSettings";
import { PlantTabs } from "./PlantTabs";

/** What is everybody's. How one person wants to see things is a person's own. */
export function SettingsPage() {
  return (
    <>
      <PlantTabs />
      <h1>Settings of the plant</h1>
      <PlantSettings />
      <p className="mt-6 max-w-prose text-sm text-iron">
        Decimal mark, time of day and light are each person's own: Settings, at the top of every
        screen.
      </p>
    </>
  );
}
