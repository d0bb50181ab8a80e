import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { draftKey, type Draft } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { SaveEdited } from "../form/SaveEdited";

/** An edited formula becomes its next revision. */
export function SaveFormula({ product, draft }: { product: Schemas["ProductView"]; draft: Draft }) {
  const { edit } = useScenario();
  const queries = useQueryClient();
  const { id, revision } = product.formula;
  const number = revision.number + 1;
  const save = async (signed: Schemas["SignedInput"]) => {
    const body: Schemas["FormulaInput"] = { ...draft, number, signed };
    await record<Schemas["FormulaView"]>({
      path: `/api/v1/formulas/${id}/revisions/${crypto.randomUUID()}`,
      label: `${product.name}, revision ${number}`,
      body,
      subject: id,
      draft: { key: draftKey("draft", product.slug), as: draft },
    });
    await queries.invalidateQueries({ queryKey: ["product", product.slug] });
    // What was edited while it was sent stays edited.
    edit((now) => (now === draft ? undefined : now));
  };
  return (
    <SaveEdited
      what="formula"
      of={id}
      number={number}
      save={save}
      onPutBack={() => edit(undefined)}
    />
  );
}
