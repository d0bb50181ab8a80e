import type { Schemas } from "../api/client";
import { ASKED } from "./limits";

type Meaning = Schemas["ColumnMeaning"];

const HEADS = {
  lot: "lot",
  flour: "flour",
  mill: "mill",
  milled: "milled on",
  delivered: "delivered on",
  tonnes: "tonnes",
} as const;

/** A mill's table with what each column is taken to mean, corrected above the rows it makes. */
export function MappingTable({
  preview,
  onChange,
}: {
  preview: Schemas["TablePreview"];
  onChange: (mapping: Schemas["Mapping"]) => void;
}) {
  const { headers, mapping, sample } = preview;
  const set = (at: number, meaning: Meaning) =>
    onChange({ ...mapping, columns: mapping.columns.map((one, i) => (i === at ? meaning : one)) });
  return (
    <section aria-labelledby="mapping" className="mt-6">
      <h2 id="mapping" className="flex flex-wrap items-baseline gap-x-6">
        Column mapping
        <label className="text-sm font-normal">
          <span className="text-iron">dates are </span>
          <select
            className="border-b border-iron bg-paper"
            value={mapping.dates}
            onChange={(event) =>
              onChange({ ...mapping, dates: event.target.value as Schemas["DateOrder"] })
            }
          >
            <option value="day_first">day first, 05/11 is 5 November</option>
            <option value="month_first">month first, 05/11 is 11 May</option>
          </select>
        </label>
      </h2>
      <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-labelledby="mapping">
        <table>
          <thead>
            <tr className="border-b border-ink align-top">
              {headers.map((header, at) => (
                <th key={at} scope="col" className="min-w-32 py-1 pr-3">
                  <span className="block text-base font-semibold text-ink">{header}</span>
                  <ColumnChoice
                    header={header}
                    meaning={mapping.columns[at] ?? { means: "ignored" }}
                    onSet={(meaning) => set(at, meaning)}
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sample.map((row, at) => (
              <tr key={at} className="border-b border-hair">
                {headers.map((_, column) => (
                  <td
                    key={column}
                    className={`py-1 pr-3 ${mapping.columns[column]?.means === "ignored" ? "text-iron line-through" : ""}`}
                  >
                    {row.cells[column]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <h2 className="mt-4">Preview</h2>
      <ul className="mt-1">
        {sample.map((row, at) => (
          <li key={at} className="border-t border-hair py-1">
            <b>{row.code || "no lot"}</b> {row.flour}{" "}
            {row.milled && <span className="text-iron">milled {row.milled}</span>}{" "}
            <span className="text-sm">{row.readings.join(" · ")}</span>
            {row.faults.length > 0 && (
              <span className="block text-sm text-stop">{row.faults.join(". ")}.</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function ColumnChoice({
  header,
  meaning,
  onSet,
}: {
  header: string;
  meaning: Meaning;
  onSet: (meaning: Meaning) => void;
}) {
  const key =
    meaning.means === "reading"
      ? meaning.property
      : meaning.means === "head"
        ? `head ${meaning.field}`
        : "";
  const onBasis =
    meaning.means === "reading" && ASKED.find(([property]) => property === meaning.property)?.[3];
  return (
    <span className="block">
      <select
        className="field font-normal"
        aria-label={`${header} means`}
        value={key}
        onChange={(event) => {
          const chosen = event.target.value;
          if (chosen === "") return onSet({ means: "ignored" });
          if (chosen.startsWith("head "))
            return onSet({ means: "head", field: chosen.slice(5) as Schemas["LotField"] });
          const asked = ASKED.find(([property]) => property === chosen);
          if (asked) {
            const [property, , unit, hasBasis] = asked;
            onSet({
              means: "reading",
              property,
              unit,
              basis: hasBasis ? "as_is" : null,
              method: "",
            });
          }
        }}
      >
        <option value="">leave it out</option>
        {Object.entries(HEADS).map(([field, word]) => (
          <option key={field} value={`head ${field}`}>
            {word}
          </option>
        ))}
        {ASKED.filter(([property]) => property !== "age").map(([property, word]) => (
          <option key={property} value={property}>
            {word}
          </option>
        ))}
      </select>
      {meaning.means === "reading" && (
        <span className="flex gap-1">
          <input
            className="field w-16 font-normal"
            aria-label={`${header}, unit`}
            value={meaning.unit}
            onChange={(event) => onSet({ ...meaning, unit: event.target.value })}
          />
          {onBasis && (
            <select
              className="field w-24 font-normal"
              aria-label={`${header}, basis`}
              value={meaning.basis ?? ""}
              onChange={(event) =>
                onSet({ ...meaning, basis: event.target.value as Schemas["MoistureBasis"] })
              }
            >
              <option value="as_is">as is</option>
              <option value="fourteen">14 %</option>
              <option value="dry_matter">dry matter</option>
            </select>
          )}
        </span>
      )}
    </span>
  );
}
