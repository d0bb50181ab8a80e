import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { useHand, type Draft } from "../hand/HandProvider";
import { FieldText } from "../shell/FieldText";
import { NameField } from "../shell/NameField";
import { Refusal } from "../shell/Refusal";
import { usePreferences } from "../units/preferences";

/** An edited formula becomes its next revision, with who and why. */
export function SaveFormula({ product, draft }: { product: Schemas["ProductView"]; draft: Draft }) {
  const { edit } = useHand();
  const { preferences } = usePreferences();
  const [reason, setReason] = useState("");
  const queries = useQueryClient();
  const save = useMutation({
    networkMode: "always",
    mutationFn: () => {
      const { id, revision } = product.formula;
      const body: Schemas["FormulaInput"] = {
        ...draft,
        number: revision.number + 1,
        signed: { by: preferences.name, reason },
      };
      return record<Schemas["FormulaView"]>({
        path: `/api/v1/formulas/${id}/revisions/${crypto.randomUUID()}`,
        label: `${product.name}, revision ${revision.number + 1}`,
        body,
      });
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["product", product.slug] });
      edit(undefined);
    },
  });
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-4 border-l-4 border-ink bg-faint p-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <p className="w-full text-sm">
        Edited and not recorded: it moves the chain here, and nobody else's. A sheet is only planned
        from a recorded formula.
      </p>
      <NameField label="Who" />
      <FieldText label="Why" value={reason} onChange={setReason} className="flex-1" />
      <button type="submit" className="act act-main" disabled={save.isPending}>
        Record revision {product.formula.revision.number + 1}
      </button>
      <button type="button" className="act" onClick={() => edit(undefined)}>
        Put back
      </button>
      <Refusal error={save.error} />
    </form>
  );
}
