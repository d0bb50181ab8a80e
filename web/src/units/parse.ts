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
  { temperature, mass }: Pick<Preferences, "temperature" | "mass">,
): { value: number } | { says: string } {
  const wrong = { says: `“${text.trim().slice(0, 30)}” is not ${EXAMPLE[kind]}` };
  const parts = [...text.trim().matchAll(/([-−+]?[\d\s\u202f.,]*\d)\s*([^\d\s.,+−-]*)/g)];
  const spelt = parts
    .map((part) => part[0])
    .join("")
    .replace(/\s/g, "");
  if (parts.length === 0 || spelt !== text.trim().replace(/\s/g, "")) return wrong;
  const bare = kind === "temperature" ? temperature.toLowerCase() : kind === "mass" ? mass : "";
  let total = 0;
  for (const [, digits = "", unit = ""] of parts) {
    const toStored = UNITS[kind][unit.toLowerCase() || bare];
    const number = Number(
      digits
        .replace(/[\s\u202f]/g, "")
        .replace("−", "-")
        .replace(",", "."),
    );
    if (!toStored || Number.isNaN(number)) return wrong;
    total += toStored(number);
  }
  return { value: Number(total.toPrecision(12)) };
}
