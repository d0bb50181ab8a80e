import { useState } from "react";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { readInstrument } from "./instrument";
import { Keypad } from "./Keypad";
import { currentOf, linesAt } from "./NextAction";
import type { Run } from "./run";
import type { Said } from "./stamp";

interface Props {
  run: Run;
  may: boolean;
  write: (label: string, said: Said) => void;
}

type Line = Schemas["WeighedLine"];

/** The sheet's lines of what is next, ticked one by one. */
export function WeighLines({ run, may, write }: Props) {
  const format = useFormat();
  const [other, setOther] = useState<Line>();
  const stage = currentOf(run);
  const lines = linesAt(run, stage ?? run.stages[0]);
  if (lines.length === 0 || run.state === "finished" || run.state === "scrapped") return null;
  const open = lines.filter((line) => line.weighed_kg == null);
  const tick = (line: Line, kg: number) =>
    write(`${line.name} weighed`, {
      kind: "reading",
      quantity: "mass_kg",
      of: line.of,
      ...(line.stage && { stage: line.stage }),
      value: kg,
    });
  return (
    <section className="mt-5">
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="text-xl">To weigh{stage && ` at ${stage.label.toLowerCase()}`}</h2>
        {may && open.length > 1 && (
          <button
            type="button"
            className="link ml-auto min-h-14 text-lg"
            onClick={() => open.forEach((line) => tick(line, line.kg))}
          >
            All {open.length} weighed as planned
          </button>
        )}
      </div>
      <ul>
        {lines.map((line) => {
          const done = line.weighed_kg != null;
          return (
            <li
              key={`${line.of} ${line.stage ?? ""}`}
              className={`flex min-h-16 flex-wrap items-center gap-x-4 border-b border-hair ${done ? "text-iron" : ""}`}
            >
              <span className={`min-w-0 flex-1 ${done ? "text-lg" : "text-2xl"}`}>
                {line.part && <span className="text-iron">{line.part}: </span>}
                {line.name}
                {line.temperature_c != null && !line.is_ice && (
                  <span className="text-iron"> at {format.temperature(line.temperature_c)}</span>
                )}
              </span>
              <span className={`figure text-right ${done ? "text-lg" : "text-3xl"}`}>
                {format.mass(line.weighed_kg ?? line.kg, line.division_kg)}
              </span>
              {may && !done && (
                <>
                  <button
                    type="button"
                    className="act min-h-14 text-lg"
                    aria-label={`${line.name} weighed`}
                    onClick={() => tick(line, line.kg)}
                  >
                    Weighed
                  </button>
                  <button
                    type="button"
                    className="link min-h-14 px-2 text-lg"
                    aria-label={`Another mass of ${line.name}`}
                    onClick={() => setOther(line)}
                  >
                    other
                  </button>
                </>
              )}
              {done && <span aria-label="weighed">✓</span>}
            </li>
          );
        })}
      </ul>
      {other && (
        <Keypad
          title={`${other.name}, planned ${format.mass(other.kg, other.division_kg)}`}
          unit="kg"
          instrument={{
            name: "from the scale",
            read: () => readInstrument(run.id, "scale", other).then(({ value }) => value),
          }}
          onClose={() => setOther(undefined)}
          onEnter={(kg) => {
            tick(other, kg);
            setOther(undefined);
          }}
        />
      )}
    </section>
  );
}
