import { useMutation } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { browserZone, setPlantWords } from "../units/clock";
import { usePlantWords } from "../units/usePlantWords";
import { FieldText } from "../form/FieldText";
import { optionsOf, Select } from "../form/Select";
import { useState } from "react";
import { Faults } from "../form/Faults";

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
      <Faults error={set.error}>
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
            options={optionsOf(WEEKS)}
            onSet={(week_starts) => set.mutate({ week_starts })}
          />
        </section>
        <section aria-labelledby="plant-money" className="space-y-2">
          <h2 id="plant-money">Prices</h2>
          <p className="text-sm text-iron">
            What flours, ingredients and doughs cost is said in it.
          </p>
          <FieldText
            label="Currency"
            value={currency ?? words.currency}
            placeholder="as EUR, £"
            onChange={setCurrency}
            onDone={() => {
              if (currency !== undefined && currency !== words.currency) set.mutate({ currency });
            }}
            field="currency"
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
            options={optionsOf(TEMPERATURES)}
            onSet={(temperature_unit) => set.mutate({ temperature_unit })}
          />
          <Select
            label="Mass"
            value={words.mass === "lb" ? "pound" : "kilogram"}
            options={optionsOf(MASSES)}
            onSet={(mass_unit) => set.mutate({ mass_unit })}
          />
        </section>
      </Faults>
    </div>
  );
}
