import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { maturityFigure } from "../figures/maturityWords";
import { CompareTable } from "../table/CompareTable";
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
    ["maturity", (one) => (one.maturity ? maturityFigure(one.maturity, format) : "–")],
    ["mixing", (one) => format.minutes(one.mixing_min)],
    ["first water to the end", (one) => format.minutes(one.total_min)],
    ["cost of a kilo", (one) => (one.cost_per_kg == null ? "–" : format.money(one.cost_per_kg, 3))],
  ];
  return (
    <CompareTable
      caption="The doughs of the trial"
      heads={variants.map((variant, at) => ({
        key: variant.name,
        head: (
          <>
            <b>{String.fromCharCode(65 + at)}</b> {variant.name}
          </>
        ),
      }))}
      groups={[
        {
          rows: [
            ...rows.map(([name, of]) => ({ key: name, label: name, cells: variants.map(of) })),
            {
              key: "handling",
              label: "handling",
              prose: true,
              cells: variants.map((one) => one.error ?? one.handling),
            },
          ],
        },
        {
          title: `To weigh, ${format.mass(set.kg, 0.001)} of each`,
          inOrder: true,
          rows: names.map((name) => ({
            key: name,
            label: name,
            cells: weighed.map((items) => {
              const item = items.find((one) => one.name === name);
              return item ? format.mass(item.kg, item.division_kg) : "";
            }),
          })),
        },
      ]}
    />
  );
}
