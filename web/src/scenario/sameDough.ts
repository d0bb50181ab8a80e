import type { Schemas } from "../api/client";

type Scenario = Schemas["ScenarioInput"];
/** A question about a dough: the dough itself, or with what else is asked of it. */
type Asked = Scenario | { scenario: Scenario } | false | null;

const papers = (asked: Asked | undefined) => {
  if (!asked) return undefined;
  const { lot_revision_id, other_lots, formula_revision_id } = (
    "scenario" in asked ? asked.scenario : asked
  ).revision_refs;
  return JSON.stringify([lot_revision_id, other_lots, formula_revision_id]);
};

/**
 * While a question about a dough is under way the last answer stays, where it was of the same
 * product and lots: never one dough's figures under another's name. The question is the key's
 * second.
 */
export const lastOfSameDough =
  (asked: Asked) =>
  <T>(last: T | undefined, query?: { queryKey: readonly unknown[] }): T | undefined =>
    papers(query?.queryKey[1] as Asked | undefined) === papers(asked) ? last : undefined;
