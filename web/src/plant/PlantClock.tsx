import { useMutation } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import { browserZone, setPlantZone, usePlantZone } from "../units/clock";

/** The clock on the plant's wall, which is everybody's. */
export function PlantClock() {
  const zone = usePlantZone();
  const set = useMutation({
    mutationFn: (time_zone: string) =>
      answer(api.PUT("/api/v1/plant/clock", { body: { time_zone } })),
    onSuccess: (clock) => setPlantZone(clock.time_zone),
  });
  const known = Intl.supportedValuesOf("timeZone");
  return (
    <section aria-labelledby="plant-clock" className="mt-4">
      <h2 id="plant-clock">The plant's clock</h2>
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
