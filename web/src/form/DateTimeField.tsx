import { useRef, useState } from "react";
import { Labelled, type Named } from "./Labelled";
import { fieldOf } from "../units/clock";
import { usePreferences } from "../units/preferences";
import { moveWallTime, readWallTime, showWallTime } from "../units/wallTime";

interface Props extends Named {
  /** By the plant's clock, as `2026-11-27T05:00`; empty where none is set. */
  value: string;
  onSet: (value: string) => void;
  /** Nothing may stand in it. */
  optional?: boolean;
}

const WANTED = "say a date and a time of day, such as 27 Nov 5:00 or tomorrow 5:00";
const STEP_MIN = 15;

/**
 * A date and a time of day by the plant's clock. What is typed is taken as soon as it is one; what is
 * none stays in the field and is not handed on. Arrows move it by a quarter of an hour.
 */
export function DateTimeField({ value, onSet, optional, fault, ...named }: Props) {
  const { preferences } = usePreferences();
  const calendar = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const read = (text: string) => readWallTime(text, value, fieldOf(new Date()));
  const take = (text: string) => {
    setTyped(text);
    const next = text.trim() === "" && optional ? "" : read(text);
    setWrong(next === null && text.trim() === "");
    if (next !== null && next !== value) onSet(next);
  };
  const leave = () => {
    if (typed === null) return;
    const right = (typed.trim() === "" && optional) || read(typed) !== null;
    setWrong(!right);
    if (right) setTyped(null);
  };
  const step = (minutes: number) => {
    if (!value) return;
    setTyped(null);
    setWrong(false);
    onSet(moveWallTime(value, minutes));
  };
  return (
    <Labelled {...named} fault={wrong ? WANTED : fault}>
      {(field) => (
        <div className="relative flex w-56 items-end">
          <input
            {...field}
            className="field pr-8 text-ink"
            autoComplete="off"
            data-settled={typed === null ? "" : undefined}
            value={typed ?? showWallTime(value, preferences.clock)}
            placeholder={optional ? "none" : "27 Nov 5:00"}
            onChange={({ target }) => take(target.value)}
            onBlur={leave}
            onKeyDown={(event) => {
              if (event.key === "Enter") leave();
              if (event.key === "Escape") {
                setTyped(null);
                setWrong(false);
              }
              const minutes = { ArrowUp: STEP_MIN, ArrowDown: -STEP_MIN }[event.key];
              if (minutes && typed === null) {
                event.preventDefault();
                step(minutes);
              }
            }}
          />
          <button
            type="button"
            tabIndex={-1}
            className="screen-only absolute right-0 h-full w-8 text-iron hover:text-ink"
            aria-label="Choose a day"
            aria-describedby={`${field.id}-label`}
            onClick={() => calendar.current?.showPicker()}
          >
            <svg viewBox="0 0 16 16" className="mx-auto h-4 w-4" aria-hidden>
              <path d="M2 4h12v10H2zM2 7h12M5 2v3M11 2v3" fill="none" stroke="currentColor" />
            </svg>
          </button>
          <input
            ref={calendar}
            type="date"
            tabIndex={-1}
            aria-hidden
            className="pointer-events-none absolute right-0 bottom-0 h-0 w-0 opacity-0"
            value={value.slice(0, 10)}
            onChange={({ target }) => {
              if (!target.value) return;
              setTyped(null);
              setWrong(false);
              onSet(`${target.value}T${value.slice(11) || "05:00"}`);
            }}
          />
        </div>
      )}
    </Labelled>
  );
}
