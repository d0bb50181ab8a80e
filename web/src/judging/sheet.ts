import type { Schemas } from "../api/client";
import type { Format } from "../units/format";

/** One line of a sheet as it is being filled in. */
export interface Marked {
  mark?: number | undefined;
  sign?: Schemas["Sign"] | undefined;
  measured?: number | undefined;
}

export type Sheet = Partial<Record<Schemas["Characteristic"], Marked>>;

/** The marks that can be given. */
export const HALVES = [1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5] as const;

export const SIGNS = [
  ["too_little", "− too little"],
  ["too_much", "+ too much"],
] as const;

/** What is sent of a sheet: every line on which something stands. */
export const marksOf = (sheet: Sheet): Schemas["ScoreMarkInput"][] =>
  (Object.entries(sheet) as [Schemas["Characteristic"], Marked][]).flatMap(([of, one]) => {
    const { mark, measured } = one;
    if (mark === undefined && measured === undefined) return [];
    const sign = mark === 5 ? undefined : one.sign;
    const given = measured === undefined ? { mark: mark ?? 0 } : { measured };
    return [{ of, ...given, ...(sign && { sign }) }];
  });

const SIDES = { too_little: "−", too_much: "+" } as const;

/** A mark with its side, as it is written: `3.50−`. */
export const markText = (
  mark: number,
  sign: Schemas["Sign"] | null | undefined,
  format: Pick<Format, "number">,
) => format.number(mark, 2) + (sign ? SIDES[sign] : "");
