import { parseNumber } from "./number";
import type { Preferences } from "./preferences";

export type Kind = "number" | "percent" | "temperature" | "degrees" | "mass" | "duration";

const UNITS: Record<Kind, Record<string, (value: number) => number>> = {
  number: { "": (value) => value },
  percent: { "": (value) => value, "%": (value) => value },
  temperature: {
    c: (value) => value,
    "°c": (value) => value,
    f: (value) => (value - 32) / 1.8,
    "°f": (value) => (value - 32) / 1.8,
  },
  degrees: {
    c: (value) => value,
    "°c": (value) => value,
    k: (value) => value,
    f: (value) => value / 1.8,
    "°f": (value) => value / 1.8,
  },
  mass: {
    kg: (value) => value,
    g: (value) => value / 1000,
    t: (value) => value * 1000,
    lb: (value) => value * 0.45359237,
    oz: (value) => value * 0.028349523125,
  },
  duration: {
    "": (value) => value,
    min: (value) => value,
    mins: (value) => value,
    minutes: (value) => value,
    h: (value) => value * 60,
    hr: (value) => value * 60,
    hrs: (value) => value * 60,
    hour: (value) => value * 60,
    hours: (value) => value * 60,
    d: (value) => value * 1440,
    days: (value) => value * 1440,
  },
};

/** Until the next morning, min. */
const OVERNIGHT_MIN = 12 * 60;

const EXAMPLE: Record<Kind, string> = {
  number: "a number, such as 4000",
  percent: "a percentage, such as 1.9",
  temperature: "a temperature, such as 24 or 75 °F",
  degrees: "a difference of temperatures, such as 2 or −3.5 °F",
  duration: "a time, such as 90 min, 1 h 30 or overnight",
  mass: "a mass, such as 160 kg, 850 g or 3 lb 4 oz",
};

/** A typed quantity in its stored unit (kg, °C), or what would be right. */
export function parseQuantity(
  text: string,
  kind: Kind,
  { temperature, mass, mark }: Pick<Preferences, "temperature" | "mass" | "mark">,
): { value: number } | { message: string } {
  const typed = clockless(text.trim(), kind);
  const quoted = `“${typed.slice(0, 30)}”`;
  const range = parseNumber(typed.replace(/[^\d.,\s'’−‐‑–—-]+$/, ""), mark);
  if ("fault" in range && range.fault === "range")
    return { message: `${quoted} is a range; one value is wanted here` };
  const bare =
    kind === "temperature" || kind === "degrees"
      ? temperature.toLowerCase()
      : kind === "mass"
        ? mass
        : "";
  const parts = [...typed.matchAll(PART)];
  // Several parts add up, each with its unit: 3 lb 4 oz; of 1 h 30 the last are minutes.
  const adds =
    (kind === "mass" || kind === "duration") &&
    parts.every(
      ([, digits, unit], at) =>
        (unit || (kind === "duration" && at > 0 && at === parts.length - 1)) &&
        !/^[-−+]/.test(digits ?? ""),
    );
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

/** A time as a clock writes it, or as it is said, in hours and minutes. */
function clockless(typed: string, kind: Kind): string {
  if (kind !== "duration") return typed;
  if (/^overnight$/i.test(typed)) return String(OVERNIGHT_MIN);
  return typed.replace(/^(\d{1,3}):(\d{2})$/, "$1 h $2");
}

/** A number with its sign and grouping, and the unit after it. */
const PART = /\s*([-−+]?[.,]?\d(?:[\d.,'’\s]*\d)?)\s*([^\d\s.,'’+−-]*)/g;
