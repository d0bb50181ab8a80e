import { Labelled } from "./Labelled";

/** The six digits an authenticator shows. */
export function CodeField(props: { value: string; onChange: (code: string) => void }) {
  return (
    <Labelled label="Code" field="code" hint="six digits" className="w-40">
      {(field) => (
        <input
          {...field}
          type="text"
          inputMode="numeric"
          autoComplete="one-time-code"
          className="field"
          value={props.value}
          onChange={({ target }) => props.onChange(target.value)}
        />
      )}
    </Labelled>
  );
}
