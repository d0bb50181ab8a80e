import { Labelled } from "./Labelled";

/** A PIN that is being set, never shown and never kept here. */
export function PinField({ value, onChange }: { value: string; onChange: (pin: string) => void }) {
  return (
    <Labelled label="PIN" field="pin" hint="four to six digits" className="w-40">
      {(field) => (
        <input
          {...field}
          type="password"
          inputMode="numeric"
          autoComplete="off"
          className="field"
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
      )}
    </Labelled>
  );
}
