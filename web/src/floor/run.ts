import { queryOptions } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { keptWhenLost } from "../api/keptAnswers";

export type Run = Schemas["BatchRun"];
export type Board = Schemas["Board"];
export type Stage = Schemas["BatchStage"];
export type Details = Schemas["EventDetails"];
export type Kind = Schemas["EventKind"];

/** A batch on the floor. */
export const runOf = (id: string) =>
  queryOptions({
    queryKey: ["batch run", id],
    staleTime: 0,
    retry: false,
    networkMode: "always",
    queryFn: () =>
      keptWhenLost(`run ${id}`, () =>
        answer(api.GET("/api/v1/batches/{batch_id}/run", { params: { path: { batch_id: id } } })),
      ),
  });

/** What is planned, running, held and finished today. */
export const BOARD = queryOptions({
  queryKey: ["board"],
  staleTime: 0,
  retry: false,
  networkMode: "always",
  queryFn: () => keptWhenLost("board", () => answer(api.GET("/api/v1/board"))),
});

/** What a note that stands for a set of folds is of. */
export const FOLDS = "folds";
/** What a note that stands for a fed starter is of. */
export const FEED = "feed";

/** What ends a stage, as it is said on the stamp. */
export const ENDED_BY: Record<Schemas["EndedBy"], string> = {
  clock: "the clock",
  rise: "its rise",
  jar: "the jar",
  temperature: "its temperature",
  windowpane: "windowpane",
  clears_bowl: "clears the bowl",
  poke: "poke",
  height: "its height",
  pull: "pull test",
  tap: "tap",
  drop: "a drop",
  cracks: "cracks",
  core: "core temperature",
  look: "its look",
};

const USUAL: Record<Schemas["StageKind"], Schemas["EndedBy"][]> = {
  mix: ["windowpane", "clears_bowl", "temperature", "clock"],
  rest: ["rise", "jar", "drop", "tap", "clock"],
  fold: ["look", "rise", "clock"],
  divide: ["clock", "look"],
  proof: ["height", "poke", "jar", "clock"],
  bake: ["core", "look", "clock"],
  cool: ["core", "clock"],
  slice: ["clock", "look"],
};

/** By what a stage may be seen to end, the method's own sign first. */
export function signsOf(stage: Stage): Schemas["EndedBy"][] {
  return [stage.ended_by, ...USUAL[stage.kind].filter((one) => one !== stage.ended_by)];
}

/** What is read in a stage, most likely first. */
export function quantitiesOf(stage: Stage | undefined): Schemas["Quantity"][] {
  switch (stage?.kind) {
    case "mix":
      return ["dough_c", "water_c", "flour_c", "room_c", "sponge_c"];
    case "rest":
    case "fold":
      return ["jar_rise_pct", "dough_rise_pct", "dough_c", "sponge_c", "room_c", "ph"];
    case "proof":
      return ["height_mm", "jar_rise_pct", "dough_c", "room_c", "humidity_pct"];
    case "bake":
    case "cool":
      return ["core_c", "height_mm"];
    default:
      return ["dough_c", "room_c", "mass_kg", "pieces"];
  }
}

export const QUANTITY: Record<Schemas["Quantity"], { name: string; unit: string }> = {
  dough_c: { name: "Dough temperature", unit: "°C" },
  flour_c: { name: "Flour temperature", unit: "°C" },
  water_c: { name: "Water temperature", unit: "°C" },
  room_c: { name: "Room temperature", unit: "°C" },
  sponge_c: { name: "Sponge temperature", unit: "°C" },
  ph: { name: "pH", unit: "" },
  height_mm: { name: "Height", unit: "mm" },
  jar_rise_pct: { name: "Sample jar rise", unit: "%" },
  dough_rise_pct: { name: "Dough rise", unit: "%" },
  core_c: { name: "Core temperature", unit: "°C" },
  mass_kg: { name: "Mass", unit: "kg" },
  humidity_pct: { name: "Humidity", unit: "%" },
  pieces: { name: "Pieces", unit: "" },
};

export const CONSISTENCY: readonly (readonly [number, string])[] = [
  [-2, "much too slack"],
  [-1, "too slack"],
  [0, "right"],
  [1, "too stiff"],
  [2, "much too stiff"],
];
