import { useId } from "react";
import type { Schemas } from "../api/client";
import { useFault } from "../form/Faults";
import { NumberField } from "../form/NumberField";
import { useFormat } from "../units/format";
import { HALVES, SIGNS, type Marked } from "./sheet";

interface Props {
  number: number;
  line: Schemas["SheetLine"];
  marked: Marked;
  /** Where it stands among what is sent. */
  place: number;
  onSet: (marked: Marked) => void;
}

/** One characteristic: a ruled scale of halves, its side, or what was measured instead. */
export function MarkLine({ number, line, marked, place, onSet }: Props) {
  const format = useFormat();
  const name = useId();
  const fault = useFault([`marks[${place}].mark`, `marks[${place}].sign`, `marks[${place}].of`]);
  const { measure } = line;
  const asksSide =
    line.two_sided &&
    (marked.measured === undefined
      ? marked.mark !== undefined && marked.mark < 5
      : measure?.says_side === false);
  return (
    <li className="flex flex-wrap items-start gap-x-6 gap-y-1 border-t border-hair py-2">
      <div className="w-64">
        <p id={name} className="font-semibold">
          {number}. {line.label}
          {line.two_sided && " ±"}
        </p>
        <p className="text-sm text-iron">weight {format.plain(line.weight)}</p>
      </div>
      <div className="min-w-80 flex-1">
        <div role="radiogroup" aria-labelledby={name} className="flex border-b border-iron">
          {HALVES.map((mark) => (
            <label
              key={mark}
              className="relative flex min-h-11 min-w-9 flex-1 cursor-pointer flex-col items-center justify-end has-focus-visible:outline-2 has-checked:bg-ink has-checked:text-paper"
            >
              <input
                type="radio"
                name={name}
                className="sr-only"
                checked={marked.measured === undefined && marked.mark === mark}
                onChange={() => onSet({ mark, sign: marked.sign })}
                aria-label={format.plain(mark)}
              />
              <span className={Number.isInteger(mark) ? "font-semibold" : "text-sm text-iron"}>
                {format.plain(mark)}
              </span>
              <span aria-hidden className="h-1.5 w-px bg-current" />
            </label>
          ))}
        </div>
        <p className="grid grid-cols-3 gap-4 text-sm text-iron">
          <span>1: {line.anchors[0]}</span>
          <span className="text-center">3: {line.anchors[1]}</span>
          <span className="text-right">5: {line.anchors[2]}</span>
        </p>
        {fault && (
          <p role="alert" className="text-sm text-stop">
            {fault}.
          </p>
        )}
      </div>
      <div className="w-56">
        {asksSide && (
          <div role="radiogroup" aria-label={`side of ${line.label}`} className="flex gap-4">
            {SIGNS.map(([sign, word]) => (
              <label key={sign} className="py-2">
                <input
                  type="radio"
                  name={`${name} side`}
                  checked={marked.sign === sign}
                  onChange={() => onSet({ ...marked, sign })}
                />{" "}
                {word}
              </label>
            ))}
          </div>
        )}
        {measure?.target && (
          <NumberField
            label={`measured: ${measure.words}${measure.unit ? `, ${measure.unit}` : ""}`}
            kind="number"
            field={`marks[${place}].measured`}
            hint={`target ${format.plain(measure.target.target)}`}
            value={marked.measured ?? null}
            onSet={(measured) =>
              onSet(measured === null ? { sign: marked.sign } : { measured, sign: marked.sign })
            }
          />
        )}
      </div>
    </li>
  );
}
