import { useMutation } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { useKept } from "../storage/useKept";
import { Form } from "./Form";
import { Signed } from "./Signed";

interface Props {
  /** A formula, a method. */
  what: string;
  /** Where the reason is kept while it is typed. */
  of: string;
  /** Of the next revision. */
  number: number;
  save: (signed: Schemas["SignedInput"]) => Promise<unknown>;
  onPutBack: () => void;
}

const begin = (kept?: { reason?: string }) => ({ reason: "", ...kept });

/** What is edited becomes the next revision, with who and why. */
export function SaveEdited({ what, of, number, save, onPutBack }: Props) {
  const [{ reason }, type, forget] = useKept(`ironpeel.reason.${of}`, begin);
  const saving = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      await save({ reason });
      forget();
    },
  });
  return (
    <Form
      className="screen-only mt-4 border-l-4 border-ink bg-faint p-3"
      error={saving.error}
      onSubmit={() => saving.mutate()}
    >
      <p className="text-sm">
        Edited, not saved: it changes the figures here only. A batch is planned only from a saved{" "}
        {what}.
      </p>
      <Signed label="Why" reason={reason} onReason={(reason) => type({ reason })} />
      <p className="mt-3 flex gap-3">
        <button type="submit" className="act act-main" disabled={saving.isPending}>
          Save revision {number}
        </button>
        <button type="button" className="act" onClick={onPutBack}>
          Discard
        </button>
      </p>
    </Form>
  );
}
