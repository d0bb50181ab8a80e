import { Labelled } from "./Labelled";

interface Props {
  value: string;
  onChange: (pin: string) => void;
  /** Typed at a station, large and at once; else one that is being set. */
  atStation?: boolean;
}

/** A PIN, never shown and never kept here. */
export function PinField({ value, onChange, atStation = false }: Props) {
  return (
    <Labelled
      label="PIN"
      field="pin"
      hint={atStation ? undefined : "four to six digits"}
      className={atStation ? "mt-4" : "w-40"}
    >
      {(field) => (
        <input
          {...field}
          type="password"
          inputMode="numeric"
          autoComplete="off"
          autoFocus={atStation}
          className={atStation ? "field text-3xl tracking-[0.4em]" : "field"}
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
      )}
    </Labelled>
  );
}
