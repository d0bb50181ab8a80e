import type { Schemas } from "../api/client";
import { FieldText } from "../form/FieldText";
import { changeDraft, type Draft } from "./draft";
import { Author } from "../form/Author";
import { Select } from "../form/Select";

interface Props {
  draft: Draft;
  flourId: string | null;
  flours: Schemas["FlourView"][];
}

/** The head of a certificate: which flour, which lot, when, how much, who. */
export function ReceiveFlourHead({ draft, flourId, flours }: Props) {
  const text = (key: "code" | "milled" | "delivered" | "tonnes", label: string, like: string) => (
    <FieldText
      label={label}
      placeholder={like}
      value={draft[key]}
      field={key}
      onChange={(value) => changeDraft({ [key]: value })}
    />
  );
  return (
    <div className="mt-4 grid grid-cols-2 gap-x-6 gap-y-3 md:grid-cols-6">
      <Select
        label="Flour"
        value={flourId ?? ""}
        options={[
          ["", "which flour?"],
          ...flours.map((flour) => [flour.id, `${flour.name}, ${flour.mill}`] as const),
        ]}
        disabled={draft.number > 1}
        onSet={(id) => changeDraft({ flourId: id || null })}
      />
      {text("code", "Lot", "VR-26-1107")}
      {text("milled", "Milled", "2026-11-05")}
      {text("delivered", "Delivered", "2026-11-07")}
      {text("tonnes", "Tonnes", "24.6")}
      <Author />
      {draft.number > 1 && (
        <div className="col-span-2 md:col-span-6">
          <FieldText
            label="Reason for the correction"
            placeholder="the mill sent a second sheet"
            value={draft.reason}
            field="signed.reason"
            onChange={(reason) => changeDraft({ reason })}
          />
        </div>
      )}
    </div>
  );
}
