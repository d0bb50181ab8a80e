import type { Refused, Schemas } from "../api/client";
import { MomentField } from "../shell/MomentField";
import { Quantity } from "../units/Quantity";
import { fieldOf } from "../units/clock";
import type { StopAsked } from "./run";

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
      <label className="text-iron">
        Stopped
        <select
          className="field text-ink"
          value={stop.place}
          onChange={(event) => set({ place: event.target.value as Schemas["Place"] | "" })}
        >
          {Object.entries(PLACES).map(([key, label]) => (
            <option key={key} value={key}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <MomentField label="Stopped from" value={stop.at} onSet={(at) => set({ at })} />
      <div className="w-20">
        <Quantity
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
