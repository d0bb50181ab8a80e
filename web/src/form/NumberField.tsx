import { useState } from "react";
import { Labelled, type Named } from "./Labelled";
import { useFormat } from "../units/format";
import { parseQuantity, type Kind } from "../units/parse";
import { usePreferences } from "../units/preferences";

interface Props extends Named {
  kind: Kind;
  /** In the stored unit: kg, °C, %. */
  value: number | null;
  /** Shown where nothing is set. */
  usual?: number | undefined;
  onSet: (value: number | null) => void;
}

/** A number typed with or without its unit, taken over on Enter or on leaving. */
export function NumberField({ kind, value, usual, onSet, fault, ...named }: Props) {
  const { preferences } = usePreferences();
  const format = useFormat();
  const show = (number: number | null | undefined) => {
    if (number === null || number === undefined) return "";
    if (kind === "duration") return format.minutes(number);
    if (kind === "temperature") return format.temperature(number);
    if (kind === "degrees") return format.degrees(number);
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
  return (
    <Labelled {...named} fault={wrong ?? (fault && format.text(fault))}>
      {(field) => (
        <input
          {...field}
          className="field"
          inputMode="decimal"
          data-settled={typed === null ? "" : undefined}
          autoComplete="off"
          value={typed ?? shown}
          placeholder={usual === undefined ? undefined : show(usual)}
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
      )}
    </Labelled>
  );
}
