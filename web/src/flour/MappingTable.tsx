import type { Schemas } from "../api/client";
import { optionsOf, Select } from "../form/Select";
import { basesOf } from "./bases";
import { useProperties } from "./useProperties";

type Meaning = Schemas["ColumnMeaning"];

const HEADS = {
  lot: "lot",
  flour: "flour",
  mill: "mill",
  milled: "milled on",
  delivered: "delivered on",
  tonnes: "tonnes",
} as const satisfies Record<Schemas["LotField"], string>;

const DATES: [Schemas["DateOrder"], string][] = [
  ["day_first", "day first, 05/11 is 5 November"],
  ["month_first", "month first, 05/11 is 11 May"],
];

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
        <Select
          label="dates are"
          place="beside"
          className="text-sm font-normal"
          value={mapping.dates}
          options={DATES}
          onSet={(dates) => onChange({ ...mapping, dates })}
        />
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
  const properties = useProperties();
  const bases =
    meaning.means === "reading"
      ? (properties.find(({ property }) => property === meaning.property)?.bases ?? [])
      : [];
  const choose = (chosen: string) => {
    const head = optionsOf(HEADS).find(([field]) => `head ${field}` === chosen);
    if (head) return onSet({ means: "head", field: head[0] });
    const read = properties.find(({ property }) => property === chosen);
    if (!read) return onSet({ means: "ignored" });
    const { property, unit, bases } = read;
    onSet({ means: "reading", property, unit, basis: bases[0] ?? null, method: "" });
  };
  return (
    <span className="block">
      <Select
        label={`${header} means`}
        place="hidden"
        look="field"
        className="block font-normal"
        value={key}
        options={[
          ["", "leave it out"],
          ...optionsOf(HEADS).map(([field, word]) => [`head ${field}`, word] as const),
          ...properties
            .filter((one) => one.is_read)
            .map(({ property, label }) => [property, label] as const),
        ]}
        onSet={choose}
      />
      {meaning.means === "reading" && (
        <span className="flex gap-1">
          <input
            className="field w-16 font-normal"
            aria-label={`${header}, unit`}
            value={meaning.unit}
            onChange={(event) => onSet({ ...meaning, unit: event.target.value })}
          />
          {bases.length > 0 && (
            <Select
              label={`${header}, basis`}
              place="hidden"
              look="field"
              className="w-24 font-normal"
              value={meaning.basis ?? ""}
              options={basesOf(bases)}
              onSet={(basis) => onSet({ ...meaning, basis })}
            />
          )}
        </span>
      )}
    </span>
  );
}
