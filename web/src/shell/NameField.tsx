import { useId } from "react";
import { usePreferences } from "../units/preferences";

/** Who records: a name or initials, kept in the browser. */
export function NameField({
  label = "Saved by",
  fault,
}: {
  label?: string;
  fault?: string | undefined;
}) {
  const id = useId();
  const { preferences, prefer } = usePreferences();
  return (
    <div className="w-44">
      <label htmlFor={id} className="block text-sm text-iron">
        {label}
      </label>
      <input
        id={id}
        className="field"
        autoComplete="off"
        placeholder="name or initials"
        value={preferences.name}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(event) => prefer({ name: event.target.value })}
      />
      {fault && (
        <p id={`${id}-fault`} className="text-sm text-stop">
          {fault}
        </p>
      )}
    </div>
  );
}
