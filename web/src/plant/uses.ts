import type { Schemas } from "../api/client";

export const USES: Record<Schemas["IntendedUse"], string> = {
  pan_bread: "pan bread",
  hearth_bread: "hearth bread",
  rolls: "rolls",
  flat_bread: "flat bread",
  whole_grain_bread: "whole-grain bread",
  ancient_grain_bread: "ancient-grain bread",
  rye_bread: "rye bread",
  gluten_free: "gluten-free bread",
  general: "general use",
};

export const SPECIES: Record<Schemas["Species"], string> = {
  wheat: "common wheat",
  durum: "durum",
  spelt: "spelt",
  emmer: "emmer",
  einkorn: "einkorn",
  khorasan: "khorasan",
  rye: "rye",
  gluten_free: "gluten-free blend",
  low_starch: "low-starch mix",
};

export const TREATMENTS: Record<Schemas["Treatment"], string> = {
  none: "untreated",
  malted: "malted",
  ascorbic_acid: "ascorbic acid",
  bleached: "bleached",
  other: "otherwise treated",
};
