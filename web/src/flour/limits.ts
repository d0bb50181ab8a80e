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

/** A limit of which only the property is said. */
export const emptyLimit = ({
  property,
  basis = null,
}: Pick<Schemas["PropertyView"], "property" | "basis">): TypedLimit => ({
  property,
  basis,
  min: "",
  target: "",
  max: "",
  must: true,
  method: "",
});

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
