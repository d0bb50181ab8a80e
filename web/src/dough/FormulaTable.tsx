import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { AddToFormula } from "./AddToFormula";
import { OtherLot } from "./OtherLot";
import { SaveFormula } from "./SaveFormula";
import { useFormula } from "./useFormula";
import { withLine, type Part } from "./formula";
import { useFormulaEdit } from "./useFormulaEdit";
import { Refusal } from "../form/Refusal";
import { massesOf } from "./masses";
import { useLabels } from "../plant/usePlantParameters";

interface Row {
  key: string;
  label: string;
  /** Percent of the whole dough on flour; none to edit where `set` is missing. */
  pct: number | null;
  set?: (pct: number | null) => void;
  fault?: string | undefined;
  /** What a part has of it, and the way to change that. */
  inPart: (part: Part) => number | null;
  setPart?: (at: number, pct: number | null) => void;
  drop?: () => void;
  under?: ReactNode;
  colour?: string;
}

/** The formula line by line over its parts: percent to edit, masses as the scale shows them. */
export function FormulaTable() {
  const { chain, product, lot, refused } = useScenarioContext();
  const { draft } = useScenario();
  const { lines, flours, parts, hydration_pct, set } = useFormula();
  const edit = useFormulaEdit();
  const labels = useLabels();
  const format = useFormat();
  if (!product) return null;
  const several = flours.length > 1;
  const sheet = chain?.sheet;
  const division = sheet?.division_kg ?? product.line.division_kg;
  const inFinal = sheet?.steps.flatMap((step) => step.takes) ?? [];
  const final = massesOf(sheet?.final_dough, several);
  const inParts = sheet?.parts.map((part) => massesOf(part.takes, several)) ?? [];
  const all = massesOf(sheet?.whole, several);
  const ice = inFinal.find((item) => item.name === "ice");

  const setPart = (at: number, change: (part: Part) => Partial<Part>) =>
    set(({ parts }) => ({
      parts: parts.map((part, index) => (index === at ? { ...part, ...change(part) } : part)),
    }));
  const lineRow = ({ ingredient, pct }: Schemas["LineInput"], at: number): Row => ({
    key: ingredient,
    label: labels(ingredient),
    pct: pct ?? 0,
    set: (next) => set(({ lines }) => ({ lines: withLine(lines, ingredient, next ?? 0) })),
    fault: refused?.at(`lines[${at}].pct`) ?? refused?.at(`lines[${at}].ingredient`),
    inPart: (part) => part.lines?.find((line) => line.ingredient === ingredient)?.pct ?? null,
    setPart: (index, next) =>
      setPart(index, (part) => ({ lines: withLine(part.lines ?? [], ingredient, next) })),
    under: product.method.stages.find((stage) =>
      stage.adds.some((one) => one.ingredient === ingredient),
    )?.label,
    drop: () =>
      set(({ lines, parts }) => ({
        lines: withLine(lines, ingredient, null),
        parts: parts.map((part) => ({
          ...part,
          lines: withLine(part.lines ?? [], ingredient, null),
        })),
      })),
  });
  const flourAt = lines.findIndex((line) => line.ingredient === "flour");
  const flourRows: Row[] = several
    ? flours.map((flour, at) => ({
        key: `flour ${flour.name}`,
        label: flour.name ?? "",
        pct: flour.share_pct ?? 0,
        set: (next) => edit.mutate({ edit: "flour_share", at, share_pct: next ?? 0 }),
        fault: refused?.at(`flours[${at}].share_pct`) ?? refused?.at(`flours[${at}].name`),
        inPart: (part) =>
          (part.flour ?? flours[0]?.name) === flour.name ? (part.flour_pct ?? 0) : null,
        setPart: (index, next) =>
          setPart(index, () => ({ flour_pct: next ?? 0, flour: flour.name ?? "" })),
        under: <OtherLot name={flour.name ?? ""} />,
        ...(at > 0 && { drop: () => edit.mutate({ edit: "remove_flour", at }) }),
      }))
    : lines.slice(flourAt, flourAt + 1).map((line) => {
        const row = lineRow(line, flourAt);
        delete row.drop;
        return {
          ...row,
          under: lot && `${lot.flour.name} ${lot.code}`,
          inPart: (part) => part.flour_pct ?? 0,
          setPart: (index, next) => setPart(index, () => ({ flour_pct: next ?? 0 })),
        };
      });
  const rows: Row[] = [
    ...flourRows,
    {
      key: "water",
      label: "water",
      pct: chain?.water?.weigh_pct ?? null,
      inPart: (part) => part.water_pct ?? 0,
      setPart: (index, next) => setPart(index, () => ({ water_pct: next ?? 0 })),
      under: ice && `${format.mass(ice.kg, division)} of it as ice`,
      colour: "text-water",
    },
    ...lines.flatMap((line, at) => (line.ingredient === "flour" ? [] : [lineRow(line, at)])),
  ];
  const columns = chain?.dough?.columns;
  const finalPct = (key: string) => {
    const of = columns?.final_dough;
    if (!of) return undefined;
    if (key === "water") return of.water_pct;
    if (key === "flour") return of.flour_pct;
    return key.startsWith("flour ")
      ? of.flours.find((flour) => key === `flour ${flour.name}`)?.share_pct
      : of.lines.find((line) => line.ingredient === key)?.pct;
  };
  const split = parts.length > 0;
  const under = (mass: Schemas["ToWeigh"] | undefined) =>
    mass &&
    mass.kg > 0 && (
      <span className="block px-1 text-sm text-iron">{format.mass(mass.kg, mass.division_kg)}</span>
    );
  const whole = refused?.at("lines") ?? refused?.at("parts") ?? refused?.at("flours");
  return (
    <section aria-label="Formula">
      <div className="overflow-x-auto">
        <table className="w-full">
          <caption className="sr-only">
            Formula in baker's percent with the masses of one dough
          </caption>
          <thead>
            <tr className="border-b border-ink align-bottom">
              <th scope="col" className="py-1">
                ingredient
              </th>
              <th scope="col" className="w-28 pl-1">
                % on flour
              </th>
              {parts.map((part, at) => (
                <th scope="col" key={at} className="w-24 pl-1">
                  {part.name}
                </th>
              ))}
              {split && (
                <th scope="col" className="w-24 pl-1">
                  final dough
                </th>
              )}
              <th scope="col" className="w-28 text-right">
                one batch
              </th>
              {!split && (
                <th scope="col" className="w-20 text-right">
                  rounding
                </th>
              )}
              <th scope="col" className="w-8">
                <span className="sr-only">take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const mass = all.get(row.key);
              const { drop } = row;
              return (
                <tr key={row.key} className={`border-b border-hair align-top ${row.colour ?? ""}`}>
                  <th
                    scope="row"
                    className={`py-1 text-base font-normal ${row.colour ?? "text-ink"}`}
                  >
                    {row.label}
                    {row.under && <span className="block text-sm text-iron">{row.under}</span>}
                  </th>
                  <td className="pr-2">
                    {row.set ? (
                      <NumberField
                        place="hidden"
                        label={`${row.label}, percent on flour`}
                        kind="percent"
                        value={row.pct}
                        onSet={row.set}
                        fault={row.fault}
                      />
                    ) : (
                      <p className="p-1">{row.pct === null ? "–" : format.percent(row.pct, 2)}</p>
                    )}
                  </td>
                  {parts.map((part, at) => (
                    <td key={at} className="pr-2">
                      <NumberField
                        place="hidden"
                        label={`${row.label} in the ${part.name}, percent on all flour`}
                        kind="percent"
                        value={row.inPart(part)}
                        onSet={(next) => row.setPart?.(at, next)}
                        fault={partFault(refused, at, row.key, part)}
                      />
                      {under(inParts[at]?.get(row.key))}
                    </td>
                  ))}
                  {split && (
                    <td className="py-1 pl-1">
                      {finalPct(row.key) !== undefined && format.share(finalPct(row.key) ?? 0)}
                      <span className="-ml-1 block">{under(final.get(row.key))}</span>
                    </td>
                  )}
                  <td className="figure text-right text-lg">
                    {mass && format.mass(mass.kg, mass.division_kg)}
                  </td>
                  {!split && (
                    <td className="pt-1 text-right text-sm text-iron">
                      {mass && `${format.signed(mass.off_pct, 2)} %`}
                    </td>
                  )}
                  <td className="text-right">
                    {drop && (
                      <button
                        type="button"
                        className="px-1 text-lg text-iron hover:text-stop"
                        aria-label={`Take ${row.label} out`}
                        title={`Take ${row.label} out`}
                        onClick={drop}
                      >
                        ×
                      </button>
                    )}
                  </td>
                </tr>
              );
            })}
            {sheet && (
              <tr className="font-semibold">
                <th scope="row" className="py-1 text-base font-semibold text-ink">
                  total
                </th>
                <td className="px-1">
                  {format.percent(
                    columns?.whole.total_pct ?? inFinal.reduce((sum, item) => sum + item.pct, 0),
                    2,
                  )}
                </td>
                {columns?.parts.map((part, at) => (
                  <td key={at} className="px-1">
                    {format.percent(part.total_pct, 2)}
                  </td>
                ))}
                {split && columns && (
                  <td className="px-1">{format.percent(columns.final_dough.total_pct, 2)}</td>
                )}
                <td className="figure text-right text-lg">
                  {format.mass(sheet.dough_kg, division)}
                </td>
                {!split && <td />}
                <td />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      {whole && <p className="mt-2 text-stop">{whole}</p>}
      <Refusal error={edit.error} />
      <AddToFormula />
      <p className="mt-3 text-sm text-iron">
        {hydration_pct == null
          ? "All the water is the computed dough absorption"
          : "The formula holds its own water"}
        ; preparations take their share of it. Revision {product.formula.revision.number},{" "}
        {format.date(product.formula.revision.made_at)}, {product.formula.revision.made_by}:{" "}
        {product.formula.revision.reason}.
      </p>
      {draft && <SaveFormula product={product} draft={draft} />}
    </section>
  );
}

/** What is wrong with one cell of a part. */
function partFault(
  refused: { at: (field: string) => string | undefined } | undefined,
  at: number,
  key: string,
  part: Part,
): string | undefined {
  if (key === "water") return refused?.at(`parts[${at}].water_pct`);
  if (key.startsWith("flour"))
    return refused?.at(`parts[${at}].flour_pct`) ?? refused?.at(`parts[${at}].flour`);
  const line = part.lines?.findIndex((one) => one.ingredient === key) ?? -1;
  return line < 0
    ? undefined
    : (refused?.at(`parts[${at}].lines[${line}]`) ??
        refused?.at(`parts[${at}].lines[${line}].pct`));
}
