import type { Schemas } from "../api/client";
import { useFormat, type Format } from "../units/format";
import { CONSISTENCY, QUANTITY, type Run } from "./run";
import type { Said, Stamp } from "./stamp";

interface Props {
  run: Run;
  stamps: Stamp[];
  may: boolean;
  write: (label: string, said: Said) => void;
}

const NAMES: Record<Schemas["EventKind"], string> = {
  start: "Started",
  stage_begin: "began",
  stage_end: "ended",
  reading: "",
  observation: "",
  addition: "Added",
  consistency: "Consistency",
  hold: "Held",
  resume: "Resumed",
  note: "Note",
  finish: "Finished",
  scrap: "Scrapped",
  correct: "Corrected",
};

/** An event in a line. */
export function eventText(format: Format, stages: Run["stages"], one: Schemas["Placed"]): string {
  const stage = stages.find((other) => other.stage === one.stage)?.label;
  const value = typeof one.value === "number" ? one.value : undefined;
  switch (one.kind) {
    case "stage_begin":
    case "stage_end":
      return `${stage ?? "A stage"} ${NAMES[one.kind]}`;
    case "reading": {
      if (!one.quantity || value === undefined) return "A reading";
      const { name, unit } = QUANTITY[one.quantity];
      const figure =
        unit === "" || unit === "%"
          ? `${format.plain(value)} ${unit}`.trim()
          : unit === "kg"
            ? format.mass(value, 0.001)
            : format.figure(value, unit);
      return `${one.of ?? name} ${figure}`;
    }
    case "addition":
      return `${typeof one.kg === "number" ? format.mass(one.kg) : ""} ${one.ingredient ?? ""} added${one.reason ? ` by ${one.reason}` : ""}`;
    case "consistency":
      return `Dough ${CONSISTENCY.find(([step]) => step === value)?.[1] ?? ""}`;
    case "observation":
      return `${one.name?.replaceAll("_", " ") ?? "Seen"} ${value ?? ""}`;
    case "note":
      return one.text ?? "Note";
    case "hold":
    case "resume":
    case "scrap":
      return one.reason ? `${NAMES[one.kind]}: ${one.reason}` : NAMES[one.kind];
    default:
      return NAMES[one.kind];
  }
}

/** Takes back what was written down last, for as long as nothing was built on it. */
export function UndoLast({ run, write }: Pick<Props, "run" | "write">) {
  const format = useFormat();
  const [last] = run.record.placed
    .filter((one) => run.record.undoable.includes(one.event))
    .sort((one, other) => other.happened_at.localeCompare(one.happened_at));
  if (!last) return null;
  const text = eventText(format, run.stages, last);
  return (
    <button
      type="button"
      className="act mt-2 min-h-16 w-full text-xl"
      onClick={() => write(`undone: ${text}`, { kind: "correct", corrects: last.event })}
    >
      Undo: {text}
    </button>
  );
}

/** What was written down, the newest first, and what found no place. */
export function RunHistory({ run, stamps, may, write }: Props) {
  const format = useFormat();
  const waiting = new Set(stamps.map((one) => one.id));
  const by = new Map(run.recorded.map((one) => [one.event, one.who]));
  const shown = [...run.record.placed].reverse();
  if (shown.length === 0 && run.record.unplaced.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="text-xl">Written down</h2>
      {run.record.unplaced.length > 0 && (
        <ul className="border-l-4 border-crust pl-3">
          {run.record.unplaced.map((one) => (
            <li key={one.event} className="py-1 text-lg">
              <b className="text-crust">Found no place:</b> {one.why}
              {by.has(one.event) && ` (${by.get(one.event) ?? ""})`}.{" "}
              {may && (
                <button
                  type="button"
                  className="link min-h-14 px-2"
                  onClick={() => write("set aside", { kind: "correct", corrects: one.event })}
                >
                  Set aside
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      <ol className="text-lg">
        {shown.map((one) => (
          <li key={one.event} className="flex gap-x-3 border-t border-hair py-1">
            <span className="figure">{format.time(one.happened_at)}</span>
            <span className="min-w-0 flex-1">
              {eventText(format, run.stages, one)}
              {one.corrected && <span className="text-iron">, corrected</span>}
            </span>
            <span className="text-iron">
              {waiting.has(one.event) ? "not yet sent" : by.get(one.event)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
