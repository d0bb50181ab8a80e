import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

/** The doughs of a trial in columns: what differs first, then what to weigh. */
export function TrialTable({ set }: { set: Schemas["TrialSet"] }) {
  const format = useFormat();
  const { variants } = set;
  const weighed = variants.map((variant) => [
    ...(variant.sheet?.parts.flatMap((part) =>
      part.takes.map((item) => ({ ...item, name: `${item.name} in the ${part.name}` })),
    ) ?? []),
    ...(variant.sheet?.steps.flatMap((step) => step.takes) ?? []),
  ]);
  const names = [...new Set(weighed.flatMap((items) => items.map((item) => item.name)))];
  const percent = (value: number | null | undefined) =>
    value == null ? "–" : format.percent(value);
  const rows: [string, (variant: Schemas["Variant"]) => ReactNode][] = [
    ["water, all of it", (one) => percent(one.dough_absorption_pct)],
    ["water to weigh", (one) => percent(one.added_water_pct)],
    ["what strength carries", (one) => percent(one.ceiling_pct)],
    ["dough temperature", (one) => (one.target_c == null ? "–" : format.temperature(one.target_c))],
    ["mixing", (one) => format.minutes(one.mixing_min)],
    ["first water to the end", (one) => format.minutes(one.total_min)],
    [
      "cost of a kilo",
      (one) => (one.cost_per_kg == null ? "–" : format.number(one.cost_per_kg, 3)),
    ],
  ];
  return (
    <div className="overflow-x-auto">
      <table className="mt-3 w-full border-collapse" aria-label="The doughs of the trial">
        <thead>
          <tr className="border-b-2 border-ink align-bottom">
            <td />
            {variants.map((variant, at) => (
              <th scope="col" key={variant.name} className="px-2 py-1 text-sm text-ink">
                <b>{String.fromCharCode(65 + at)}</b> {variant.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, of]) => (
            <Row key={name} name={name} cells={variants.map(of)} />
          ))}
          <Row
            name="handling"
            cells={variants.map((one) => (
              <span key={one.name} className="text-sm">
                {one.error ?? one.handling}
              </span>
            ))}
          />
          <tr className="border-y-2 border-ink">
            <th scope="col" colSpan={variants.length + 1} className="py-1 text-ink">
              To weigh, {format.mass(set.kg, 0.001)} of each
            </th>
          </tr>
          {names.map((name) => (
            <Row
              key={name}
              name={name}
              figure
              cells={weighed.map((items) => {
                const item = items.find((one) => one.name === name);
                return item ? format.mass(item.kg, item.division_kg) : "";
              })}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface RowProps {
  name: string;
  cells: ReactNode[];
  figure?: boolean;
}

function Row({ name, cells, figure }: RowProps) {
  const first = cells[0];
  return (
    <tr className="border-b border-hair align-top">
      <th scope="row" className="py-0.5 pr-3 text-sm font-normal text-ink">
        {name}
      </th>
      {cells.map((cell, at) => (
        <td
          key={at}
          className={`px-2 py-0.5 ${figure ? "figure" : ""} ${at > 0 && cell !== first && typeof cell === "string" ? "font-semibold text-crust print:underline" : ""}`}
        >
          {cell}
        </td>
      ))}
    </tr>
  );
}
