import type { Schemas } from "../api/client";
import type { Format } from "../units/format";

const SOURCE = {
  cold_tap: "cold tap",
  hot_tap: "hot tap",
  chiller: "chiller",
  refrigerator: "refrigerator",
} as const satisfies Record<Schemas["WaterSource"], string>;

/** Where the water comes from, by mass. */
export const waterFrom = (format: Format, from: Schemas["WaterFrom"][], division: number): string =>
  from
    .map(
      ({ source, kg, temperature_c }) =>
        `${format.mass(kg, division)} from the ${SOURCE[source]} at ${format.temperature(temperature_c)}`,
    )
    .join(" and ");
