import type { Format } from "../units/format";

/** A figure with no more digits than it is worth. */
export function shown(format: Format, value: number, unit = ""): string {
  const digits = Math.abs(value) >= 100 ? 0 : Math.abs(value) >= 10 ? 1 : 2;
  return `${format.plain(Number(value.toFixed(digits)))} ${unit}`.trim();
}
