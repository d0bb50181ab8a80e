import type { Schemas } from "../api/client";

export type Verdict = Schemas["Verdict"];

/** A verdict as a mark and a word: never by colour alone. */
export const VERDICT: Record<Verdict, { mark: string; word: string; colour: string }> = {
  in: { mark: "●", word: "in", colour: "text-moss" },
  borderline: { mark: "◐", word: "borderline", colour: "text-crust" },
  missing: { mark: "○", word: "missing", colour: "text-crust" },
  out: { mark: "✕", word: "out", colour: "text-stop" },
};
