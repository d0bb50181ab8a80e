import type { Schemas } from "../api/client";
import type { Format } from "../units/format";

const VERDICTS: Record<Schemas["MaturityVerdict"], string> = {
  green: "green: it tears, and keeps less gas",
  young: "young: conditioners or time make it good",
  ripe: "ripe",
  past: "past its ripeness: sticky, and it keeps less gas",
};

/** A maturity with what it is called. */
export const maturityWords = (
  { maturity, verdict }: Pick<Schemas["Maturity"], "maturity" | "verdict">,
  format: Format,
) => `${format.number(maturity, 2)}, ${VERDICTS[verdict]}`;

/** The same in short, as one of several. */
export const maturityFigure = (
  { maturity, verdict }: Pick<Schemas["Maturity"], "maturity" | "verdict">,
  format: Format,
) => `${format.number(maturity, 2)}, ${verdict}`;
