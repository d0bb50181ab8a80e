import type { Schemas } from "../api/client";

export const BASES = {
  as_is: "as is",
  fourteen: "14 %",
  dry_matter: "dry matter",
} as const satisfies Record<Schemas["MoistureBasis"], string>;

/** A property's bases as they are chosen from. */
export const basesOf = (bases: readonly Schemas["MoistureBasis"][]) =>
  bases.map((basis) => [basis, BASES[basis]] as const);
