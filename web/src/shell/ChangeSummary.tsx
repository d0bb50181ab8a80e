import type { Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { useFormat } from "../units/format";

/**
 * What moved since the last change, by how much and why, and the way back; at the foot, so that
 * nothing slips from under a pointer as it comes.
 */
export function ChangeSummary({ changes }: { changes: Schemas["FigureChange"][] | undefined }) {
  const format = useFormat();
  const { scenario, before, undo } = useScenario();
  if (before?.scenario.product !== scenario.product || !before) return null;
  return (
    <aside
      aria-label="Changes"
      className="screen-only fixed inset-x-0 bottom-0 z-10 max-h-[50vh] overflow-y-auto border-t border-hair bg-faint"
    >
      <div className="mx-auto flex max-w-7xl items-start gap-4 px-3 py-1.5 text-sm sm:px-6">
        <details className="min-w-0 flex-1">
          <summary className="truncate">
            {!changes && "The last edit is not computed."}
            {changes?.length === 0 && "Nothing changed with the last edit."}
            {changes?.map((move, at) => (
              <span key={move.figure}>
                {at > 0 && <span className="text-iron"> · </span>}
                {move.label}{" "}
                <b className="text-crust">{format.figure(move.delta, points(move.unit), true)}</b>
              </span>
            ))}
          </summary>
          <ul className="grid gap-x-8 py-2 md:grid-cols-2">
            {changes?.map((move) => (
              <li key={move.figure} className="py-0.5">
                <b>{move.label}</b> {format.figure(move.before, move.unit)} →{" "}
                {format.figure(move.after, move.unit)}
                {move.because.length > 0 && (
                  <span className="text-iron">
                    {move.adds_up ? ": " : ", with "}
                    {move.because
                      .map((one) => `${format.figure(one.delta, one.unit, true)} ${one.label}`)
                      .join("; ")}
                  </span>
                )}
              </li>
            ))}
          </ul>
        </details>
        <button type="button" className="link shrink-0" onClick={undo}>
          Undo <kbd className="font-sans text-iron">Ctrl Z</kbd>
        </button>
      </div>
    </aside>
  );
}

/** A difference of percents is in points. */
const points = (unit: string) => (unit === "%" ? "points" : unit);
