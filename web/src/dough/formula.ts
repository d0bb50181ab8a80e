import type { Schemas } from "../api/client";

export type Part = Schemas["PreparationInput"];

/** A product's formula as recorded, in the shape it is edited in. */
export const recorded = ({ formula }: Schemas["ProductView"]) => edited(formula);

/** A formula in the shape it is edited in. */
export function edited(formula: Schemas["FormulaView"]): Schemas["EditedFormula"] {
  return {
    lines: formula.lines.map(({ ingredient, pct }) => ({ ingredient, pct })),
    flours: formula.flours,
    parts: formula.parts.map(({ flour, temperature_c, rate, vessel, water_c, set_c, ...part }) => ({
      ...part,
      ...(flour != null && { flour }),
      ...(temperature_c != null && { temperature_c }),
      ...(rate != null && { rate }),
      ...(vessel != null && { vessel }),
      ...(water_c != null && { water_c }),
      ...(set_c != null && { set_c }),
    })),
    style_points: formula.style_points,
    piece_kg: formula.piece_kg,
    losses: formula.losses,
    ...(formula.hydration_pct != null && { hydration_pct: formula.hydration_pct }),
    ...(formula.batch_kg != null && { batch_kg: formula.batch_kg }),
  };
}

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
