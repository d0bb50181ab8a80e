import { useId, useState } from "react";

interface Props {
  label: string;
  /** As a browser's field keeps a date and a time: local, without a zone. */
  value: string;
  onSet: (value: string) => void;
  fault?: string | undefined;
}

/** A date and a time of day. One cleared or half typed stays in the field and is not handed on. */
export function MomentField({ label, value, onSet, fault }: Props) {
  const id = useId();
  const [cleared, clear] = useState(false);
  const message = cleared ? "say a date and a time of day" : fault;
  return (
    <div className="text-sm">
      <label htmlFor={id} className="block text-iron">
        {label}
      </label>
      <input
        id={id}
        type="datetime-local"
        className="field text-ink"
        value={cleared ? "" : value}
        aria-invalid={message ? true : undefined}
        aria-describedby={message ? `${id}-says` : undefined}
        onChange={({ target }) => {
          clear(target.value === "");
          if (target.value !== "") onSet(target.value);
        }}
      />
      {message && (
        <p id={`${id}-says`} className="text-stop">
          {message}
        </p>
      )}
    </div>
  );
}
