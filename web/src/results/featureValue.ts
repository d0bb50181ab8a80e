import type { Format } from "../units/format";
import type { Kind } from "../units/parse";

/** How a feature's unit is typed; a temperature says its own. */
export const kindOf = (unit: string): Kind =>
  unit === "°C" ? "temperature" : unit === "K" ? "degrees" : "number";

/** A figure with no more digits than it is worth. */
export function shown(format: Format, value: number, unit = ""): string {
  if (unit === "°C") return format.temperature(value);
  if (unit === "K") return format.degrees(value);
  const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
  return `${format.plain(Number(value.toFixed(digits)))} ${unit}`.trim();
}
