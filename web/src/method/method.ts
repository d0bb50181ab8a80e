import type { Schemas } from "../api/client";
import type { Kind } from "../units/parse";

export type StageInput = Schemas["StageInput"];

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
