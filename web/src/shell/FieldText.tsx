import { useId } from "react";

interface Props {
  label: string;
  value: string;
  placeholder?: string;
  fault?: string | undefined;
  className?: string;
  onChange: (value: string) => void;
  /** On Enter, or on leaving. */
  onDone?: () => void;
}

/** A labelled line of text, with what is wrong beneath it. */
export function FieldText({
  label,
  value,
  placeholder,
  fault,
  className,
  onChange,
  onDone,
}: Props) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm text-iron">
        {label}
      </label>
      <input
        id={id}
        className="field"
        autoComplete="off"
        placeholder={placeholder}
        value={value}
        aria-invalid={fault ? true : undefined}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onDone}
        onKeyDown={(event) => {
          if (event.key === "Enter") onDone?.();
        }}
      />
      {fault && (
        <p id={`${id}-fault`} className="text-sm text-stop">
          {fault}
        </p>
      )}
    </div>
  );
}
