import { parseNumber } from "./number";
import type { Preferences } from "./preferences";

export type Kind = "number" | "percent" | "temperature" | "mass";

const UNITS: Record<Kind, Record<string, (value: number) => number>> = {
  number: { "": (value) => value },
  percent: { "": (value) => value, "%": (value) => value },
  temperature: {
    c: (value) => value,
    "°c": (value) => value,
    f: (value) => (value - 32) / 1.8,
    "°f": (value) => (value - 32) / 1.8,
  },
  mass: {
    kg: (value) => value,
    g: (value) => value / 1000,
    t: (value) => value * 1000,
    lb: (value) => value * 0.45359237,
    oz: (value) => value * 0.028349523125,
  },
};

const EXAMPLE: Record<Kind, string> = {
  number: "a number, such as 4000",
  percent: "a percentage, such as 1.9",
  temperature: "a temperature, such as 24 or 75 °F",
  mass: "a mass, such as 160 kg, 850 g or 3 lb 4 oz",
};

/** A typed quantity in its stored unit (kg, °C), or what would be right. */
export function parseQuantity(
  text: string,
  kind: Kind,
  { temperature, mass, mark }: Pick<Preferences, "temperature" | "mass" | "mark">,
): { value: number } | { message: string } {
  const typed = text.trim();
  const quoted = `“${typed.slice(0, 30)}”`;
  const range = parseNumber(typed.replace(/[^\d.,\s'’−‐‑–—-]+$/, ""), mark);
  if ("fault" in range && range.fault === "range")
    return { message: `${quoted} is a range; one value is wanted here` };
  const bare = kind === "temperature" ? temperature.toLowerCase() : kind === "mass" ? mass : "";
  const parts = [...typed.matchAll(PART)];
  // Several parts add up only for masses, each with its unit: 3 lb 4 oz.
  const adds =
    kind === "mass" && parts.every(([, digits, unit]) => unit && !/^[-−+]/.test(digits ?? ""));
  let total = 0;
  for (const [, digits = "", unit = ""] of parts) {
    const toStored = UNITS[kind][unit.toLowerCase() || bare];
    const read = parseNumber(digits, mark);
    if (!toStored || !("value" in read)) return { message: `${quoted} is not ${EXAMPLE[kind]}` };
    total += toStored(read.value);
  }
  const whole = parts.length > 0 && parts.map((part) => part[0]).join("") === typed;
  if (!whole || (parts.length > 1 && !adds))
    return { message: `${quoted} is not ${EXAMPLE[kind]}` };
  return { value: Number(total.toPrecision(12)) };
}

/** A number with its sign and grouping, and the unit after it. */
const PART = /\s*([-−+]?[.,]?\d(?:[\d.,'’\s]*\d)?)\s*([^\d\s.,'’+−-]*)/g;
