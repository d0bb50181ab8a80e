import type { Schemas } from "../api/client";

/** Each place has its own tone, and its own hatching for those who see none. */
export const LOOKS: Record<Schemas["StageRole"], { fill: string; stroke: string }> = {
  sponge: { fill: "url(#lies)", stroke: "var(--color-moss)" },
  before: { fill: "url(#lies)", stroke: "var(--color-moss)" },
  preparation_mixing: { fill: "var(--color-ink)", stroke: "var(--color-ink)" },
  mixing: { fill: "var(--color-ink)", stroke: "var(--color-ink)" },
  autolyse: { fill: "var(--color-ink)", stroke: "var(--color-ink)" },
  folds: { fill: "url(#rests)", stroke: "var(--color-moss)" },
  floor: { fill: "url(#rests)", stroke: "var(--color-moss)" },
  cold: { fill: "url(#cools)", stroke: "var(--color-water)" },
  dividing: { fill: "var(--color-iron)", stroke: "var(--color-iron)" },
  intermediate: { fill: "url(#rests)", stroke: "var(--color-moss)" },
  proof: { fill: "url(#rises)", stroke: "var(--color-moss)" },
  bake: { fill: "var(--color-crust)", stroke: "var(--color-crust)" },
  cool: { fill: "var(--color-faint)", stroke: "var(--color-iron)" },
  slicing: { fill: "var(--color-faint)", stroke: "var(--color-iron)" },
};

/** The hatchings they are filled with. */
export const StagePatterns = () => (
  <defs>
    <pattern id="lies" width="6" height="6" patternUnits="userSpaceOnUse">
      <rect width="6" height="6" fill="var(--color-sheet)" />
      <path d="M0 6L6 0" stroke="var(--color-moss)" strokeWidth="1" />
    </pattern>
    <pattern id="rests" width="6" height="4" patternUnits="userSpaceOnUse">
      <rect width="6" height="4" fill="var(--color-sheet)" />
      <path d="M0 2H6" stroke="var(--color-moss)" strokeWidth="0.7" />
    </pattern>
    <pattern id="cools" width="4" height="6" patternUnits="userSpaceOnUse">
      <rect width="4" height="6" fill="var(--color-sheet)" />
      <path d="M2 0V6" stroke="var(--color-water)" strokeWidth="0.9" />
    </pattern>
    <pattern id="rises" width="4" height="4" patternUnits="userSpaceOnUse">
      <rect width="4" height="4" fill="var(--color-sheet)" />
      <circle cx="2" cy="2" r="0.9" fill="var(--color-moss)" />
    </pattern>
  </defs>
);
