import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FieldText } from "../form/FieldText";
import { Form } from "../form/Form";
import { useMay } from "../session/session";
import { useFormat } from "../units/format";

interface Props {
  batch: string;
  fault: string;
  /** By its key; none of the listed ones where it is null. */
  cause: string | null;
  /** What was found of this batch's fault so far. */
  cases: Schemas["FaultCaseRecord"][];
}

/** What else than a judgement can be said. */
const OTHERWISE = [
  { word: "The change cured it", verdict: "confirmed", by_change: true },
  { word: "It was not this", verdict: "rejected", by_change: false },
] as const;

/** A person says what it was: confirmed ones teach how often each cause is behind this fault here. */
export function ConfirmCause({ batch, fault, cause, cases }: Props) {
  const format = useFormat();
  const queries = useQueryClient();
  const may = useMay("change");
  const [note, setNote] = useState("");
  const last = cases.filter((one) => (one.cause ?? null) === cause).at(-1);
  const save = useMutation({
    networkMode: "always",
    mutationFn: (said: { verdict: Schemas["CaseVerdict"]; by_change: boolean }) =>
      record({
        path: `/api/v1/batches/${batch}/fault-cases/${crypto.randomUUID()}`,
        label: "cause of a fault",
        body: { fault, ...(cause && { cause }), ...said, note },
      }),
    onSuccess: async () => {
      setNote("");
      await queries.invalidateQueries({ queryKey: ["batches"] });
    },
  });
  return (
    <>
      {last && (
        <p role="status" className="mt-1 text-sm">
          <b>{last.verdict === "confirmed" ? "Confirmed" : "Rejected"}</b>
          {last.by_change ? " by a change that was tried" : " by judgement"}, {last.made_by},{" "}
          {format.moment(last.made_at)}
          {last.note && `: ${last.note}`}.
        </p>
      )}
      {may && (
        <Form
          className="screen-only mt-1 flex flex-wrap items-end gap-3 text-sm"
          error={save.error}
          onSubmit={() => save.mutate({ verdict: "confirmed", by_change: false })}
        >
          <FieldText
            label="What was seen"
            className="min-w-48 flex-1"
            field="note"
            value={note}
            onChange={setNote}
          />
          <button type="submit" className="act" disabled={save.isPending}>
            Confirm by judgement
          </button>
          {OTHERWISE.filter(({ verdict }) => cause || verdict === "confirmed").map(
            ({ word, ...said }) => (
              <button
                key={word}
                type="button"
                className="act"
                disabled={save.isPending}
                onClick={() => save.mutate(said)}
              >
                {word}
              </button>
            ),
          )}
        </Form>
      )}
    </>
  );
}
