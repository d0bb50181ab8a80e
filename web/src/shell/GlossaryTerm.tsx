import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { ReactNode } from "react";
import { GLOSSARY } from "./glossary";

/** A word of the trade that explains itself once asked. */
export function GlossaryTerm({ of, children }: { of: string; children?: ReactNode }) {
  const term = GLOSSARY.get(of);
  if (!term) throw new Error(`“${of}” is not in the glossary`);
  const more = [term.unit, term.basis, term.standard].filter(Boolean).join("; ");
  return (
    <Popover as="span" className="inline-block">
      <PopoverButton
        className="cursor-help border-b border-dotted border-iron"
        title={term.definition}
      >
        {children ?? of}
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: "bottom start", gap: 4, padding: 12 }}
        className="z-30 max-w-xs border border-ink bg-sheet p-3 text-sm text-ink shadow-lg"
      >
        {term.definition}
        <span className="block text-iron">{more}</span>
      </PopoverPanel>
    </Popover>
  );
}
