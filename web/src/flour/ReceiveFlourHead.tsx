import type { Refused, Schemas } from "../api/client";
import { FieldText } from "../shell/FieldText";
import { usePreferences } from "../units/preferences";
import { changeDraft, type Draft } from "./draft";

interface Props {
  draft: Draft;
  flourId: string | null;
  flours: Schemas["FlourView"][];
  refused: Refused | undefined;
}

/** The head of a certificate: which flour, which lot, when, how much, who. */
export function ReceiveFlourHead({ draft, flourId, flours, refused }: Props) {
  const { preferences, prefer } = usePreferences();
  const text = (key: "code" | "milled" | "delivered" | "tonnes", label: string, like: string) => (
    <FieldText
      label={label}
      placeholder={like}
      value={draft[key]}
      fault={refused?.at(key)}
      onChange={(value) => changeDraft({ [key]: value })}
    />
  );
  return (
    <div className="mt-4 grid grid-cols-2 gap-x-6 gap-y-3 md:grid-cols-6">
      <div>
        <label htmlFor="flour" className="block text-sm text-iron">
          Flour
        </label>
        <select
          id="flour"
          className="field"
          value={flourId ?? ""}
          disabled={draft.number > 1}
          onChange={(event) => changeDraft({ flourId: event.target.value || null })}
        >
          <option value="">which flour?</option>
          {flours.map((flour) => (
            <option key={flour.id} value={flour.id}>
              {flour.name}, {flour.mill}
            </option>
          ))}
        </select>
      </div>
      {text("code", "Lot", "VR-26-1107")}
      {text("milled", "Milled", "2026-11-05")}
      {text("delivered", "Delivered", "2026-11-07")}
      {text("tonnes", "Tonnes", "24.6")}
      <FieldText
        label="Saved by"
        placeholder="name or initials"
        value={preferences.name}
        fault={refused?.at("signed.by")}
        onChange={(name) => prefer({ name })}
      />
      {draft.number > 1 && (
        <div className="col-span-2 md:col-span-6">
          <FieldText
            label="Reason for the correction"
            placeholder="the mill sent a second sheet"
            value={draft.reason}
            fault={refused?.at("signed.reason")}
            onChange={(reason) => changeDraft({ reason })}
          />
        </div>
      )}
    </div>
  );
}
