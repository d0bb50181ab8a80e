import type { Schemas } from "../api/client";
import { DateTimeField } from "../form/DateTimeField";
import { NumberField } from "../form/NumberField";
import { fieldOf } from "../units/clock";
import type { StopAsked } from "./run";
import { Select } from "../form/Select";

const PLACES: [Schemas["Place"] | "", string][] = [
  ["", "the whole line"],
  ["mixer", "the mixer"],
  ["divider", "the divider"],
  ["proofer", "the proofer"],
  ["oven", "the oven"],
];

interface Props {
  stop: StopAsked | undefined;
  onStop: (stop: StopAsked | undefined) => void;
}

/** From when, for how long, and what stands still. */
export function StopForm({ stop, onStop }: Props) {
  if (!stop)
    return (
      <button
        type="button"
        className="act border-stop text-stop"
        onClick={() => onStop({ at: fieldOf(new Date()), minutes: 90, place: "" })}
      >
        Line stoppage
      </button>
    );
  const set = (change: Partial<StopAsked>) => onStop({ ...stop, ...change });
  return (
    <fieldset className="flex flex-wrap items-end gap-3 border-l-4 border-stop pl-3 text-sm">
      <legend className="sr-only">Line stoppage</legend>
      <Select
        label="Stopped"
        value={stop.place}
        options={PLACES}
        onSet={(place) => set({ place })}
      />
      <DateTimeField label="Stopped from" value={stop.at} onSet={(at) => set({ at })} />
      <NumberField
        className="w-20"
        label="For, min"
        kind="number"
        value={stop.minutes}
        onSet={(value) => set({ minutes: value ?? 90 })}
        field="stop.minutes"
      />
      <button type="button" className="link" onClick={() => onStop(undefined)}>
        Restart
      </button>
    </fieldset>
  );
}
