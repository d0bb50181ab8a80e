import { useMutation } from "@tanstack/react-query";
import { answer, api, Refused, type Schemas } from "../api/client";
import { browserZone, setPlantWords } from "../units/clock";
import { usePlantWords } from "../units/usePlantWords";
import { FieldText } from "../shell/FieldText";
import { Refusal } from "../shell/Refusal";
import { Select } from "../shell/Select";
import { useState } from "react";

type Change = Schemas["SettingsInput"];

const WEEKS = {
  monday: "Monday",
  sunday: "Sunday",
  saturday: "Saturday",
} as const satisfies Record<Schemas["WeekStart"], string>;
const TEMPERATURES = { celsius: "°C", fahrenheit: "°F" } as const;
const MASSES = { kilogram: "kg, g", pound: "lb, oz" } as const;

/** What is everybody's: the plant's clock, its currency, its week, and units for the newcomer. */
export function PlantSettings() {
  const words = usePlantWords();
  const [currency, setCurrency] = useState<string>();
  const set = useMutation({
    mutationFn: (change: Change) => answer(api.PUT("/api/v1/plant/settings", { body: change })),
    onSuccess: (settings) => {
      setPlantWords(settings);
      setCurrency(undefined);
    },
  });
  const zones = [...new Set([words.zone, "UTC", ...Intl.supportedValuesOf("timeZone")])];
  return (
    <div className="mt-4 grid max-w-3xl gap-x-10 gap-y-6 sm:grid-cols-2">
      <section aria-labelledby="plant-clock" className="space-y-2">
        <h2 id="plant-clock">The plant's clock</h2>
        <p className="text-sm text-iron">
          Hours and days are planned, shown and printed by it, wherever this browser is.
        </p>
        <Select
          label="Time zone"
          value={words.zone}
          options={zones.map((name) => [name, name])}
          disabled={set.isPending}
          onSet={(time_zone) => set.mutate({ time_zone })}
        />
        {words.zone !== browserZone() && (
          <p className="text-sm text-iron">This browser's own clock is {browserZone()}.</p>
        )}
        <Select
          label="A week begins on"
          value={words.weekStarts}
          options={Object.entries(WEEKS)}
          onSet={(week_starts) => set.mutate({ week_starts: week_starts as Schemas["WeekStart"] })}
        />
      </section>
      <section aria-labelledby="plant-money" className="space-y-2">
        <h2 id="plant-money">Prices</h2>
        <p className="text-sm text-iron">What flours, ingredients and doughs cost is said in it.</p>
        <FieldText
          label="Currency"
          value={currency ?? words.currency}
          placeholder="as EUR, £"
          onChange={setCurrency}
          onDone={() => {
            if (currency !== undefined && currency !== words.currency) set.mutate({ currency });
          }}
          fault={set.error instanceof Refused ? set.error.at("currency") : undefined}
        />
      </section>
      <section aria-labelledby="plant-units" className="space-y-2">
        <h2 id="plant-units">Units for the newcomer</h2>
        <p className="text-sm text-iron">
          Until somebody chooses their own under Settings, at the top of every screen.
        </p>
        <Select
          label="Temperature"
          value={words.temperature === "F" ? "fahrenheit" : "celsius"}
          options={Object.entries(TEMPERATURES)}
          onSet={(unit) => set.mutate({ temperature_unit: unit as Schemas["TemperatureUnit"] })}
        />
        <Select
          label="Mass"
          value={words.mass === "lb" ? "pound" : "kilogram"}
          options={Object.entries(MASSES)}
          onSet={(unit) => set.mutate({ mass_unit: unit as Schemas["MassUnit"] })}
        />
      </section>
      <Refusal error={set.error} placed={/^currency$/} />
    </div>
  );
}
