import { useFormat } from "../units/format";
import type { ImportState } from "./useImport";

/** How far an import is, what became of its rows, and which were not recorded and why. */
export function ImportProgress({ state, onCancel }: { state: ImportState; onCancel: () => void }) {
  const format = useFormat();
  const { running, cancelled, done, all, added, same, faults, message } = state;
  const rows = new Set(faults.map((fault) => fault.row)).size;
  return (
    <section aria-label="Import" className="mt-4" aria-live="polite">
      <div className="flex items-center gap-4">
        <progress
          className="h-3 flex-1 accent-crust"
          value={done}
          max={Math.max(1, all)}
          aria-label="Rows imported"
        />
        <span>
          {format.number(done, 0)} of {format.number(all, 0)} rows
        </span>
        {running && (
          <button type="button" className="act" onClick={onCancel}>
            Stop
          </button>
        )}
      </div>
      <p className="mt-2">
        <b>{format.number(added, 0)} recorded</b>, {format.number(same, 0)} on record already,{" "}
        {format.number(rows, 0)} not imported{cancelled && "; stopped, what was recorded stays"}.
        {faults.length > 0 && !running && (
          <button type="button" className="link ml-3" onClick={() => save(faults)}>
            Save the faults as CSV
          </button>
        )}
      </p>
      {message && <p className="mt-1 text-stop">{message}.</p>}
      {faults.length > 0 && (
        <ul
          className="mt-1 max-h-60 overflow-y-auto text-sm"
          tabIndex={0}
          aria-label="Rows not imported"
        >
          {faults.slice(0, 200).map((fault, at) => (
            <li key={at} className="border-t border-hair py-0.5">
              row {fault.row}
              {fault.lot && <b> {fault.lot}</b>}: <span className="text-stop">{fault.message}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function save(faults: ImportState["faults"]) {
  const cell = (text: string | number) => `"${String(text).replaceAll('"', '""')}"`;
  const lines = faults.map((fault) => [fault.row, fault.lot, fault.message].map(cell).join(","));
  const blob = new Blob([["row,lot,fault", ...lines].join("\n")], { type: "text/csv" });
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = "rows-not-taken-in.csv";
  link.click();
  URL.revokeObjectURL(link.href);
}
