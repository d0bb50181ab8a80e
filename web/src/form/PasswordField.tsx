import { Labelled, type Named } from "./Labelled";

interface Props extends Named {
  value: string;
  /** One that is chosen here, not known already. */
  isNew?: boolean;
  onChange: (value: string) => void;
}

/** A password, never shown and never kept here. */
export function PasswordField({ value, isNew, onChange, ...named }: Props) {
  return (
    <Labelled hint={isNew ? "12 letters or more, any of them" : undefined} {...named}>
      {(field) => (
        <input
          {...field}
          type="password"
          className="field"
          autoComplete={isNew ? "new-password" : "current-password"}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Labelled>
  );
}
