import { useQueryClient } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { draftKey, type MethodDraft } from "../scenario/edited";
import { productOf } from "../scenario/questions";
import { useScenario } from "../scenario/ScenarioProvider";
import { SaveEdited } from "../form/SaveEdited";

interface Props {
  product: Schemas["ProductView"];
  method: MethodDraft;
}

/** An edited method becomes its next revision. */
export function SaveMethod({ product, method }: Props) {
  const { editMethod } = useScenario();
  const queries = useQueryClient();
  const { id, name, revision } = product.method;
  const number = revision.number + 1;
  const save = async (signed: Schemas["SignedInput"]) => {
    const body: Schemas["MethodInput"] = { ...method, number, signed };
    const saved = await record<Schemas["MethodView"]>({
      path: `/api/v1/methods/${id}/revisions/${crypto.randomUUID()}`,
      label: `${name}, revision ${number} of its method`,
      body,
      subject: id,
      draft: { key: draftKey("method", product.slug), as: method },
    });
    const { queryKey } = productOf(product.slug);
    queries.setQueryData(queryKey, (known) => known && { ...known, method: saved });
    // What was edited while it was sent stays edited.
    editMethod((now) => (now === method ? undefined : now));
    await queries.invalidateQueries({ queryKey });
  };
  return (
    <SaveEdited
      what="method"
      of={id}
      number={number}
      save={save}
      onPutBack={() => editMethod(undefined)}
    />
  );
}
