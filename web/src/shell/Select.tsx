import { useId } from "react";

interface Props {
  label: string;
  /** What a screen reader says of it, where that is more than the label. */
  name?: string;
  value: string;
  /** Each value with its word. */
  options: readonly (readonly [string, string])[];
  onSet: (value: string) => void;
  fault?: string | undefined;
  disabled?: boolean;
}

/** A labelled choice of one of several, with what is wrong beneath it. */
export function Select({ label, name, value, options, onSet, fault, disabled }: Props) {
  const id = useId();
  return (
    <div className="text-sm">
      <label htmlFor={id} className="block text-iron">
        {label}
      </label>
      <select
        id={id}
        aria-label={name}
        className="field text-ink"
        value={value}
        disabled={disabled}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(event) => onSet(event.target.value)}
      >
        {options.map(([key, word]) => (
          <option key={key} value={key}>
            {word}
          </option>
        ))}
      </select>
      {fault && (
        <p id={`${id}-fault`} className="text-stop">
          {fault}
        </p>
      )}
    </div>
  );
}
