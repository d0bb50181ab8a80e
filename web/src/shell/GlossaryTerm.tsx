import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { ReactNode } from "react";

const GLOSSARY = {
  absorption:
    "Water a flour takes to reach 500 FU in the farinograph, in percent of flour (ISO 5530-1).",
  "floor water":
    "All the water a dough wants on the floor, in percent of flour, whatever brings it.",
  "baker's percent": "Every ingredient in percent of all the flour together, which is 100.",
  borderline:
    "Within what the method repeats to of a limit: the laboratory could as well have found it on the other side.",
  division: "The smallest step the scale shows.",
  "damaged starch":
    "Starch cracked in milling. It drinks at once and lets go later: dry at the mixer, sticky at the divider.",
  "dry matter": "The flour without its water: a value moved to 0 % moisture.",
  "mixing energy": "What the mixer puts into each kilo of dough; it develops it and heats it.",
  sponge:
    "Part of the flour, most of the water and all of the yeast, left to ripen for hours before the rest is mixed in.",
  "clean-up": "The moment in mixing at which the bowl's wall comes clean.",
  friction: "What the rule of thumb leaves unexplained: the mixer's heat, in degrees.",
  cadence: "Minutes from one dough to the next on a line: its slowest place sets it.",
  windowpane: "A piece of dough drawn out until light shows through without a tear.",
  hydration:
    "Water over flour, in percent. Formula hydration counts the water you weigh; effective hydration counts what the other ingredients bring too.",
} as const;

/** A word of the trade that explains itself once asked. */
export function GlossaryTerm({
  of,
  children,
}: {
  of: keyof typeof GLOSSARY;
  children?: ReactNode;
}) {
  return (
    <Popover as="span" className="inline-block">
      <PopoverButton
        className="cursor-help border-b border-dotted border-iron"
        title={GLOSSARY[of]}
      >
        {children ?? of}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: "bottom start", gap: 4, padding: 12 }}
        className="z-30 max-w-xs border border-ink bg-sheet p-3 text-sm text-ink shadow-lg"
      >
        {GLOSSARY[of]}
      </PopoverPanel>
    </Popover>
  );
}
