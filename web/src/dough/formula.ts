import type { Schemas } from "../api/client";

export type Part = Schemas["PreparationInput"];

/** A list of lines with one ingredient's percent set, or dropped. */
export function withLine(
  lines: Schemas["LineInput"][],
  ingredient: string,
  pct: number | null,
): Schemas["LineInput"][] {
  if (pct === null) return lines.filter((line) => line.ingredient !== ingredient);
  const known = lines.some((line) => line.ingredient === ingredient);
  return known
    ? lines.map((line) => (line.ingredient === ingredient ? { ...line, pct } : line))
    : [...lines, { ingredient, pct }];
}

export const VESSELS = {
  mixer_bowl: "mixer bowl",
  trough: "trough",
  bowl: "bowl",
  tub: "tub",
  pot: "pot",
} as const satisfies Record<Schemas["Vessel"], string>;

export const PREPARATIONS = {
  sponge: "Sponge",
  starter: "Starter",
  autolyse: "Autolyse",
  scald: "Scald",
  soaker: "Soaker",
} as const satisfies Record<Schemas["PreparationKind"], string>;
