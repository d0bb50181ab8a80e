import type { Refused, Schemas } from "../api/client";
import { DateTimeField } from "../shell/DateTimeField";
import { NumberField } from "../units/NumberField";
import { fieldOf } from "../units/clock";
import type { StopAsked } from "./run";
import { Select } from "../shell/Select";

const PLACES = {
  "": "the whole line",
  mixer: "the mixer",
  divider: "the divider",
  proofer: "the proofer",
  oven: "the oven",
} as const;

interface Props {
  stop: StopAsked | undefined;
  onStop: (stop: StopAsked | undefined) => void;
  refused: Refused | undefined;
}

/** From when, for how long, and what stands still. */
export function StopForm({ stop, onStop, refused }: Props) {
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
        options={Object.entries(PLACES)}
        onSet={(value) => set({ place: value as Schemas["Place"] | "" })}
      />
      <DateTimeField label="Stopped from" value={stop.at} onSet={(at) => set({ at })} />
      <div className="w-20">
        <NumberField
          label="For, min"
          kind="number"
          value={stop.minutes}
          onSet={(value) => set({ minutes: value ?? 90 })}
          fault={refused?.at("stop.minutes")}
        />
      </div>
      <button type="button" className="link" onClick={() => onStop(undefined)}>
        Restart
      </button>
    </fieldset>
  );
}
