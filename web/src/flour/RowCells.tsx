import type { Schemas } from "../api/client";

export interface RowEdit {
  set: (at: number, change: Partial<Schemas["Row"]>) => void;
  remove: (at: number) => void;
  add: (rule?: Schemas["RequirementCheck"]) => void;
}

interface Props {
  row: Schemas["ReadRow"];
  at: number;
  edit: RowEdit | undefined;
  /** The line of the file it was read from, where that has no columns. */
  excerpt: string | undefined;
}

const COLUMNS = [
  { key: "property", width: "min-w-36", list: "properties" },
  { key: "value", width: "w-20 text-right", list: undefined },
  { key: "unit", width: "w-24", list: "units" },
  { key: "basis", width: "w-24", list: "bases" },
  { key: "method", width: "w-28", list: undefined },
] as const;

/** A row as it was written, or as inputs to write it. */
export function RowCells({ row, at, edit, excerpt }: Props) {
  const { written, fault } = row;
  if (!edit) {
    return (
      <>
        <th scope="row" className="py-1 text-base font-normal text-ink">
          {written.property}
        </th>
        <td className="figure text-right text-lg">{written.value}</td>
        <td className="pl-1 text-sm whitespace-nowrap">{written.unit}</td>
        <td className="pl-3 text-sm whitespace-nowrap">{written.basis}</td>
        <td className="pl-3 text-sm whitespace-nowrap text-iron">{written.method}</td>
      </>
    );
  }
  return COLUMNS.map(({ key, width, list }) => (
    <td key={key} className="pr-1">
      <input
        className={`field ${width}`}
        aria-label={`${key}, row ${at + 1}`}
        aria-invalid={fault?.column === key ? true : undefined}
        autoComplete="off"
        list={list}
        value={written[key] ?? ""}
        onChange={(event) => edit.set(at, { [key]: event.target.value })}
        onKeyDown={(event) => {
          // Down the column, as on paper.
          const cell = event.currentTarget.closest("td")?.cellIndex ?? 0;
          const row = event.currentTarget.closest("tr")
            ?.nextElementSibling as HTMLTableRowElement | null;
          if (event.key === "Enter") row?.cells[cell]?.querySelector("input")?.focus();
        }}
      />
      {key === "property" && excerpt && (
        <span className="block max-w-56 text-xs text-iron">read from “{excerpt}”</span>
      )}
    </td>
  ));
}

/** What the inputs of a row suggest. */
export function RowSuggestions() {
  return (
    <>
      <datalist id="bases">
        {["as is", "14 %", "dry matter"].map((basis) => (
          <option key={basis} value={basis} />
        ))}
      </datalist>
      <datalist id="units">
        {["%", "s", "min", "FU", "mmH2O", "mm", "10-4 J", "µm"].map((unit) => (
          <option key={unit} value={unit} />
        ))}
      </datalist>
    </>
  );
}
