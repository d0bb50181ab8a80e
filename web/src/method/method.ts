import type { Schemas } from "../api/client";
import type { MethodDraft } from "../scenario/edited";

type Stage = Schemas["Stage"];
export type StageInput = Schemas["StageInput"];

/** A stage as somebody would type it. */
const typed = (stage: Stage): StageInput => ({
  ...stage,
  temperature_c: stage.temperature_c ?? undefined,
  humidity_pct: stage.humidity_pct ?? undefined,
  fold_sets: stage.fold_sets ?? undefined,
  ends_at_rise_pct: stage.ends_at_rise_pct ?? undefined,
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

export const KINDS = {
  mix: "mix",
  rest: "rest, lie, rise",
  fold: "fold",
  divide: "divide, shape",
  proof: "proof",
  bake: "bake",
  cool: "cool",
} as const satisfies Record<Schemas["StageKind"], string>;

export const SIGNS = {
  look: "look and feel",
  time: "the clock",
  temperature: "a temperature",
  rise: "a rise",
  jar: "the sample jar",
  windowpane: "a windowpane",
  clears_bowl: "clearing the bowl",
  poke: "a poke",
  pull_and_tap: "a pull and a tap",
  height: "a height",
  cracks: "cracks",
  core_temperature: "core temperature",
  ph: "pH",
} as const satisfies Record<Schemas["EndPoint"], string>;

export const PROCESSES = {
  no_time: "no-time straight dough",
  straight_bulk: "straight dough with bulk",
  sponge_dough: "sponge and dough",
  long_cold: "long cold or autolysed",
  frozen: "frozen dough",
} as const satisfies Record<Schemas["Process"], string>;

/** What a new stage begins as. */
export const NEW_STAGE: StageInput = {
  kind: "rest",
  label: "Rest",
  minutes: 20,
  ends_when: "",
  end_point: "look",
  reason: "",
  adds: [],
};
