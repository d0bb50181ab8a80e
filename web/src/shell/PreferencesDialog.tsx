import { Radio, RadioGroup } from "@headlessui/react";
import { useMutation } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { browserZone, setPlantZone, usePlantZone } from "../units/clock";
import { usePreferences, type Preferences } from "../units/preferences";
import { Modal } from "./Modal";

const CHOICES = [
  {
    key: "temperature",
    label: "Temperature",
    options: [
      ["C", "°C"],
      ["F", "°F"],
    ],
  },
  {
    key: "mass",
    label: "Mass",
    options: [
      ["kg", "kg, g"],
      ["lb", "lb, oz"],
    ],
  },
  {
    key: "mark",
    label: "Decimal mark",
    options: [
      [".", "point 62.3"],
      [",", "comma 62,3"],
    ],
  },
  {
    key: "more",
    label: "Decimals",
    options: [
      [0, "usual"],
      [1, "one more"],
    ],
  },
  {
    key: "theme",
    label: "Light",
    options: [
      ["day", "day"],
      ["night", "night"],
    ],
  },
] as const;

export function PreferencesDialog(props: { open: boolean; onClose: () => void }) {
  const { preferences, prefer } = usePreferences();
  return (
    <Modal {...props} title="Settings">
      <p className="mt-1 text-sm text-iron">Personal, kept in this browser.</p>
      {CHOICES.map(({ key, label, options }) => (
        <RadioGroup
          key={key}
          value={preferences[key]}
          onChange={(value) => prefer({ [key]: value } as Partial<Preferences>)}
          className="flex items-center gap-2 border-t border-hair py-2 first-of-type:mt-3"
          aria-label={label}
        >
          <span className="w-36 shrink-0">{label}</span>
          {options.map(([value, text]) => (
            <Radio
              key={String(value)}
              value={value}
              className="cursor-pointer border border-hair px-3 py-1 data-checked:border-ink data-checked:bg-ink data-checked:text-paper"
            >
              {text}
            </Radio>
          ))}
        </RadioGroup>
      ))}
      <label className="flex items-center gap-2 border-t border-hair py-2">
        <span className="w-36 shrink-0">Name on records</span>
        <input
          className="field"
          maxLength={60}
          value={preferences.name}
          placeholder="name or initials"
          onChange={(event) => prefer({ name: event.target.value })}
        />
      </label>
      <PlantClock />
    </Modal>
  );
}

/** The clock on the plant's wall, which is everybody's. */
function PlantClock() {
  const zone = usePlantZone();
  const set = useMutation({
    mutationFn: (time_zone: string) =>
      answer(api.PUT("/api/v1/plant/clock", { body: { time_zone } })),
    onSuccess: (clock) => setPlantZone(clock.time_zone),
  });
  const known = Intl.supportedValuesOf("timeZone");
  return (
    <section aria-labelledby="plant-clock" className="mt-4 border-t-2 border-ink pt-2">
      <h3 id="plant-clock">The plant's clock</h3>
      <p className="text-sm text-iron">
        Everybody's: hours and days are planned, shown and printed by it, wherever this browser is.
      </p>
      <label className="mt-1 flex items-center gap-2">
        <span className="w-36 shrink-0">Time zone</span>
        <select
          className="field"
          value={zone}
          disabled={set.isPending}
          onChange={(event) => set.mutate(event.target.value)}
        >
          {[...new Set([zone, "UTC", ...known])].map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      {zone !== browserZone() && (
        <p className="text-sm text-iron">This browser's own clock is {browserZone()}.</p>
      )}
      {set.error && (
        <p className="text-sm text-stop" role="alert">
          {set.error.message}. The clock is as it was.
        </p>
      )}
    </section>
  );
}
