import { useId, useState } from "react";
import { useFormat } from "./format";
import { parseQuantity, type Kind } from "./parse";
import { usePreferences } from "./preferences";

interface Props {
  label: string;
  kind: Kind;
  /** In the stored unit: kg, °C, %. */
  value: number | null;
  /** Shown where nothing is set. */
  usual?: number | undefined;
  onSet: (value: number | null) => void;
  /** What the server says of it. */
  fault?: string | undefined;
  hint?: string | undefined;
  bare?: boolean;
}

/** A number typed with or without its unit, taken over on Enter or on leaving. */
export function NumberField({ label, kind, value, usual, onSet, fault, hint, bare }: Props) {
  const id = useId();
  const { preferences } = usePreferences();
  const format = useFormat();
  const show = (number: number | null | undefined) => {
    if (number === null || number === undefined) return "";
    if (kind === "temperature") return format.temperature(number);
    if (kind === "mass") return format.mass(number, number < 100 ? 0.001 : 0.1);
    return format.plain(number) + (kind === "percent" ? " %" : "");
  };
  const shown = show(value);
  // What is being typed; none while the field shows what is set.
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string>();

  const take = () => {
    if (typed === null) return;
    const text = typed.trim();
    const read = text === "" ? { value: null } : parseQuantity(text, kind, preferences);
    if ("message" in read) return setWrong(read.message);
    setTyped(null);
    setWrong(undefined);
    if (text !== shown && read.value !== value) onSet(read.value);
  };
  const message = wrong ?? (fault && format.text(fault));
  return (
    <div>
      <label htmlFor={id} className={bare ? "sr-only" : "block text-sm text-iron"}>
        {label}
      </label>
      <input
        id={id}
        className="field"
        inputMode="decimal"
        data-settled={typed === null ? "" : undefined}
        autoComplete="off"
        value={typed ?? shown}
        placeholder={usual === undefined ? undefined : show(usual)}
        aria-invalid={message ? true : undefined}
        aria-describedby={message || hint ? `${id}-says` : undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          if (event.key === "Enter") take();
          if (event.key === "Escape") {
            setTyped(null);
            setWrong(undefined);
          }
        }}
      />
      {(message ?? hint) && (
        <p id={`${id}-says`} className={`mt-1 text-sm ${message ? "text-stop" : "text-iron"}`}>
          {message ?? hint}
        </p>
      )}
    </div>
  );
}
