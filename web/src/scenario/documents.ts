import type { Schemas } from "../api/client";
import type { MethodDraft } from "./edited";

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

/** A stage as somebody would type it. */
const typed = (stage: Schemas["Stage"]): Schemas["StageInput"] => ({
  ...stage,
  temperature_c: stage.temperature_c ?? undefined,
  humidity_pct: stage.humidity_pct ?? undefined,
  fold_sets: stage.fold_sets ?? undefined,
  id: stage.id ?? crypto.randomUUID(),
  ends_at: stage.ends_at ?? undefined,
  begins_at_mm: stage.begins_at_mm ?? undefined,
  programme: stage.programme?.map((phase) => ({
    ...phase,
    bottom_c: phase.bottom_c ?? undefined,
    steam_s: phase.steam_s ?? undefined,
    steam_until_core_c: phase.steam_until_core_c ?? undefined,
    aid: phase.aid ?? undefined,
  })),
  adds: stage.adds.map((one) => ({
    ingredient: one.ingredient,
    share_pct: one.share_pct ?? undefined,
    temperature_c: one.temperature_c ?? undefined,
  })),
});

/** A method as somebody would type it, to change something of it. */
export const asDraft = (method: Schemas["Method"] | Schemas["MethodFamily"]): MethodDraft => ({
  process: method.process,
  target_c: method.target_c,
  sponge_c: ("sponge_c" in method ? method.sponge_c : null) ?? undefined,
  machine_divided: method.machine_divided,
  stages: method.stages.map(typed),
});
