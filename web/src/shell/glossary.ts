import text from "../../../docs/glossary.md?raw";

/** A term of the trade as `docs/glossary.md` has it. */
export interface Term {
  definition: string;
  unit: string;
  basis: string;
  standard: string;
}

/** Every term of the glossary by its name. */
export const GLOSSARY: ReadonlyMap<string, Term> = new Map(
  text
    .split("\n")
    .filter((line) => line.startsWith("| "))
    .slice(1)
    .map((line) => {
      const cells = line.split("|").map((cell) => cell.trim());
      const [, term = "", definition = "", unit = "", basis = "", standard = ""] = cells;
      return [term, { definition, unit, basis, standard }];
    }),
);
