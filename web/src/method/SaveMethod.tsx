import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refused, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { useHand, type MethodDraft } from "../hand/HandProvider";
import { Refusal } from "../shell/Refusal";
import { Signed } from "../shell/Signed";
import { usePreferences } from "../units/preferences";

interface Props {
  product: Schemas["ProductView"];
  method: MethodDraft;
}

/** An edited method becomes its next revision, with who and why. */
export function SaveMethod({ product, method }: Props) {
  const { editMethod } = useHand();
  const { preferences } = usePreferences();
  const [reason, setReason] = useState("");
  const queries = useQueryClient();
  const { id, name, revision } = product.method;
  const save = useMutation({
    networkMode: "always",
    mutationFn: () => {
      const body: Schemas["MethodInput"] = {
        ...method,
        number: revision.number + 1,
        signed: { by: preferences.name, reason },
      };
      return record<Schemas["MethodView"]>({
        path: `/api/v1/methods/${id}/revisions/${crypto.randomUUID()}`,
        label: `${name}, revision ${revision.number + 1}`,
        body,
      });
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["product", product.slug] });
      editMethod(undefined);
    },
  });
  const refused = save.error instanceof Refused ? save.error : undefined;
  return (
    <form
      className="screen-only mt-4 border-l-4 border-ink bg-faint p-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <p className="text-sm">
        Edited and not recorded: it moves the chain here, and nobody else's. A sheet is only planned
        from a recorded method.
      </p>
      <Signed label="Why" reason={reason} onReason={setReason} refused={refused} />
      <p className="mt-3 flex gap-3">
        <button type="submit" className="act act-main" disabled={save.isPending}>
          Record revision {revision.number + 1}
        </button>
        <button type="button" className="act" onClick={() => editMethod(undefined)}>
          Put back
        </button>
      </p>
      <Refusal error={save.error} placed={/^signed/} />
    </form>
  );
}
