import { Labelled, type Named } from "./Labelled";

interface Props extends Named {
  value: string;
  type?: "text" | "email";
  autoComplete?: "off" | "username";
  placeholder?: string;
  onChange: (value: string) => void;
  /** On Enter, or on leaving. */
  onDone?: () => void;
}

/** A line of text. */
export function FieldText({
  value,
  type = "text",
  autoComplete = "off",
  placeholder,
  onChange,
  onDone,
  ...named
}: Props) {
  return (
    <Labelled {...named}>
      {(field) => (
        <input
          {...field}
          type={type}
          className="field"
          autoComplete={autoComplete}
          placeholder={placeholder}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          onBlur={onDone}
          onKeyDown={(event) => {
            if (event.key === "Enter") onDone?.();
          }}
        />
      )}
    </Labelled>
  );
}
