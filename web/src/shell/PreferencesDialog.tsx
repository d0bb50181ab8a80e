import { Radio, RadioGroup } from "@headlessui/react";
import { Link } from "react-router";
import { browserZone } from "../units/clock";
import { usePlantZone } from "../units/usePlantWords";
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
    key: "clock",
    label: "Time of day",
    options: [
      ["24", "17:30"],
      ["12", "5:30 pm"],
    ],
  },
  {
    key: "keys",
    label: "Single-key shortcuts",
    options: [
      ["on", "on"],
      ["off", "off"],
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
  const zone = usePlantZone();
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
      <p className="mt-3 border-t-2 border-ink pt-2 text-sm">
        The plant's clock is {zone}.{" "}
        {zone !== browserZone() && `This browser's own is ${browserZone()}. `}
        <Link to="/plant/settings" className="link" onClick={props.onClose}>
          Settings of the plant
        </Link>
      </p>
    </Modal>
  );
}
