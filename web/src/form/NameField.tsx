import { usePreferences } from "../units/preferences";
import { FieldText } from "./FieldText";

/** Who records: a name or initials, kept in the browser. */
export function NameField({ label = "Saved by", field }: { label?: string; field?: string }) {
  const { preferences, prefer } = usePreferences();
  return (
    <FieldText
      label={label}
      className="w-44"
      placeholder="name or initials"
      value={preferences.name}
      field={field ?? "by"}
      onChange={(name) => prefer({ name })}
    />
  );
}
