import type { Schemas } from "../api/client";

export type Part = Schemas["PreparationInput"];

/** A formula as recorded, in the shape it is edited in. */
export function recorded({ formula }: Schemas["ProductView"]): Schemas["EditedFormula"] {
  return {
    lines: formula.lines.map(({ ingredient, pct }) => ({ ingredient, pct })),
    flours: formula.flours,
    parts: formula.parts.map(({ flour, temperature_c, rate, ...part }) => ({
      ...part,
      ...(flour != null && { flour }),
      ...(temperature_c != null && { temperature_c }),
      ...(rate != null && { rate }),
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

/** Shares with one set, the main flour taking up the rest, or the next where it is the main's. */
export function withShare(
  shares: Schemas["FlourShareInput"][],
  at: number,
  pct: number,
): Schemas["FlourShareInput"][] {
  const set = shares.map((share, index) => (index === at ? { ...share, share_pct: pct } : share));
  const rest = at === 0 ? 1 : 0;
  const others = set.reduce((sum, one, i) => (i === rest ? sum : sum + (one.share_pct ?? 0)), 0);
  return set.map((share, index) =>
    index === rest ? { ...share, share_pct: Number((100 - others).toFixed(6)) } : share,
  );
}

/** A part of its kind to begin with. */
export const PARTS: Record<Schemas["PreparationKind"], { word: string; part: Part }> = {
  sponge: {
    word: "Sponge",
    part: {
      kind: "sponge",
      name: "sponge",
      flour_pct: 60,
      water_pct: 36,
      lines: [],
      temperature_c: 29.5,
    },
  },
  starter: {
    word: "Starter",
    part: {
      kind: "starter",
      name: "starter",
      flour_pct: 10,
      water_pct: 10,
      lines: [],
      temperature_c: 24,
    },
  },
  autolyse: {
    word: "Autolyse",
    part: { kind: "autolyse", name: "autolyse", flour_pct: 80, water_pct: 50, lines: [] },
  },
  scald: {
    word: "Scald",
    part: {
      kind: "scald",
      name: "scald",
      flour_pct: 6,
      water_pct: 27,
      lines: [],
      temperature_c: 30,
    },
  },
  soaker: {
    word: "Soaker",
    part: { kind: "soaker", name: "soaker", flour_pct: 0, water_pct: 5, lines: [] },
  },
};
