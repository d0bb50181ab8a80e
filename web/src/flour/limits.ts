import type { Schemas } from "../api/client";
import type { Format } from "../units/format";
import { given, type Mark } from "../units/number";

/** A limit as it is being typed. */
export interface TypedLimit {
  property: Schemas["Property"];
  basis: Schemas["MoistureBasis"] | null;
  min: string;
  target: string;
  max: string;
  must: boolean;
  method: string;
}

/** Properties a specification may ask for, with their word, their unit and whether a basis matters. */
export const ASKED: [Schemas["Property"], string, string, boolean][] = [
  ["moisture", "moisture", "%", false],
  ["protein", "protein", "%", true],
  ["ash", "ash", "%", true],
  ["wet_gluten", "wet gluten", "%", true],
  ["gluten_index", "gluten index", "", false],
  ["falling_number", "falling number", "s", false],
  ["damaged_starch", "damaged starch", "%", true],
  ["absorption", "absorption", "%", true],
  ["development", "development", "min", false],
  ["stability", "stability", "min", false],
  ["softening", "softening", "FU", false],
  ["p", "P", "mmH2O", false],
  ["l", "L", "mm", false],
  ["w", "W", "10-4 J", false],
  ["p_over_l", "P/L", "", false],
  ["ie", "Ie", "%", false],
  ["particle_size", "particle size", "µm", false],
  ["age", "days since milling", "days", false],
];

export function emptyLimit(property: Schemas["Property"]): TypedLimit {
  const onBasis = ASKED.find(([key]) => key === property)?.[3];
  const basis = !onBasis ? null : property === "ash" ? "dry_matter" : "fourteen";
  return { property, basis, min: "", target: "", max: "", must: true, method: "" };
}

/** Numbers in fields, as the person writes them. */
export function typed(limit: Schemas["Limit"], format: Format): TypedLimit {
  const text = (value: number | null | undefined) => (value == null ? "" : format.plain(value));
  const { property, min, target, max } = limit;
  return {
    property,
    basis: limit.basis ?? null,
    min: text(min),
    target: text(target),
    max: text(max),
    must: limit.must ?? true,
    method: limit.method ?? "",
  };
}

/** As the server takes it; what is no number goes as it was typed, and is told there. */
export function limitOf(limit: TypedLimit, mark: Mark) {
  const number = (text: string) => given(text, mark);
  const { min, target, max, ...rest } = limit;
  return { ...rest, min: number(min), target: number(target), max: number(max) };
}
