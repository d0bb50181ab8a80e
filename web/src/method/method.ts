import type { Schemas } from "../api/client";
import type { MethodDraft } from "../scenario/edited";
import type { Kind } from "../units/parse";

type Stage = Schemas["Stage"];
export type StageInput = Schemas["StageInput"];

/** A stage as somebody would type it. */
const typed = (stage: Stage): StageInput => ({
  ...stage,
  temperature_c: stage.temperature_c ?? undefined,
  humidity_pct: stage.humidity_pct ?? undefined,
  fold_sets: stage.fold_sets ?? undefined,
  id: stage.id ?? crypto.randomUUID(),
  ends_at: stage.ends_at ?? undefined,
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

export const KINDS = {
  mix: "mix",
  rest: "rest, lie, rise",
  fold: "fold",
  divide: "divide, shape",
  proof: "proof",
  bake: "bake",
  cool: "cool",
  slice: "slice",
} as const satisfies Record<Schemas["StageKind"], string>;

export const SIGNS = {
  look: "look and feel",
  time: "the clock",
  temperature: "a temperature",
  rise: "a rise",
  jar: "the sample jar",
  drop: "a drop",
  windowpane: "a windowpane",
  clears_bowl: "clearing the bowl",
  poke: "a poke",
  pull_and_tap: "a pull and a tap",
  height: "a height",
  cracks: "cracks",
  core_temperature: "core temperature",
  ph: "pH",
} as const satisfies Record<Schemas["EndPoint"], string>;

/** What the number a stage ends at is of. */
export const FIGURES = {
  rise: { label: "Ends at a rise of", kind: "percent" },
  dough_temperature: { label: "Ends at a dough of", kind: "temperature" },
  core_temperature: { label: "Ends at a core of", kind: "temperature" },
  height: { label: "Ends at a height, mm", kind: "number" },
  ph: { label: "Ends at a pH of", kind: "number" },
  minutes_after: { label: "Ends", kind: "duration" },
} as const satisfies Record<Schemas["EndFigure"], { label: string; kind: Kind }>;

export const PROCESSES = {
  no_time: "no-time straight dough",
  straight_bulk: "straight dough with bulk",
  sponge_dough: "sponge and dough",
  long_cold: "long cold or autolysed",
  frozen: "frozen dough",
} as const satisfies Record<Schemas["Process"], string>;

/** What a new stage begins as. */
export const newStage = (): StageInput => ({
  id: crypto.randomUUID(),
  kind: "rest",
  label: "Rest",
  minutes: 20,
  ends_when: "",
  end_point: "look",
  reason: "",
  adds: [],
});
