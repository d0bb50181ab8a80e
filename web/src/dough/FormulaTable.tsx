import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refused, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { useHand } from "../hand/HandProvider";
import { useHeld } from "../shell/useHeld";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { Quantity } from "../units/Quantity";

/** The formula line by line: percent to edit, masses as the scale shows them. */
export function FormulaTable() {
  const { chain, product, refused } = useHeld();
  const { lines, edit } = useHand();
  const format = useFormat();
  if (!product) return null;
  const weighed = chain?.sheet?.steps.flatMap((step) => step.takes) ?? [];
  const division = chain?.sheet?.division_kg ?? product.line.division_kg;
  const shown: Schemas["LineInput"][] =
    lines ?? product.formula.lines.map(({ ingredient, pct }) => ({ ingredient, pct }));
  const label = (ingredient: string) => ingredient.replaceAll("_", " ");
  const set = (at: number, pct: number | null) =>
    edit(shown.map((line, index) => (index === at ? { ...line, pct: pct ?? 0 } : line)));
  const whole = refused?.at("now.lines") ?? refused?.at("lines");
  const water = weighed.filter((item) => item.ingredient === "water");
  return (
    <section aria-label="Formula">
      <table className="w-full">
        <caption className="sr-only">
          Formula in baker's percent with the masses of one dough
        </caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              ingredient
            </th>
            <th scope="col" className="w-36">
              % on flour
            </th>
            <th scope="col" className="w-32 text-right">
              one dough
            </th>
            <th scope="col" className="w-32 text-right">
              rounded by
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((line, at) => {
            const mass = weighed.find((item) => item.ingredient === line.ingredient);
            return (
              <tr key={line.ingredient} className="border-b border-hair">
                <th scope="row" className="py-1 text-base font-normal text-ink">
                  {label(line.ingredient)}
                </th>
                <td>
                  <Quantity
                    bare
                    label={`${label(line.ingredient)}, percent on flour`}
                    kind="percent"
                    value={line.pct ?? 0}
                    onSet={(pct) => set(at, pct)}
                    fault={refused?.at(`lines[${at}].pct`)}
                  />
                </td>
                <td className="figure text-right text-lg">
                  {mass && format.mass(mass.kg, mass.division_kg)}
                </td>
                <td className="text-right text-sm text-iron">
                  {mass && format.signed(mass.off_pct, 2)} %
                </td>
              </tr>
            );
          })}
          {water.map((item) => (
            <tr key={item.name} className="border-b border-hair">
              <th scope="row" className="py-1 text-base font-normal text-water">
                {item.name}
              </th>
              <td className="px-1 text-water">{format.percent(item.pct, 2)}</td>
              <td className="figure text-right text-lg text-water">
                {format.mass(item.kg, division)}
              </td>
              <td className="text-right text-sm text-iron">{format.signed(item.off_pct, 2)} %</td>
            </tr>
          ))}
          {chain?.sheet && (
            <tr className="font-semibold">
              <th scope="row" className="py-1 text-base font-semibold text-ink">
                together
              </th>
              <td className="px-1">
                {format.percent(
                  weighed.reduce((sum, item) => sum + item.pct, 0),
                  2,
                )}
              </td>
              <td className="figure text-right text-lg">
                {format.mass(chain.sheet.dough_kg, division)}
              </td>
              <td />
            </tr>
          )}
        </tbody>
      </table>
      {whole && <p className="mt-2 text-stop">{whole}</p>}
      <p className="mt-2 text-sm text-iron">
        Water is not in the formula: it comes from the lot's stair. Revision{" "}
        {product.formula.revision.number}, {format.date(product.formula.revision.made_at)},{" "}
        {product.formula.revision.made_by}: {product.formula.revision.reason}.
      </p>
      {lines && <SaveFormula product={product} lines={lines} onDone={() => edit(undefined)} />}
    </section>
  );
}

interface SaveProps {
  product: Schemas["ProductView"];
  lines: Schemas["LineInput"][];
  onDone: () => void;
}

/** Edited percentages become the formula's next revision, with who and why. */
function SaveFormula({ product, lines, onDone }: SaveProps) {
  const { preferences, prefer } = usePreferences();
  const [reason, setReason] = useState("");
  const queries = useQueryClient();
  const save = useMutation({
    networkMode: "always",
    mutationFn: () => {
      const { id, revision, style_points, piece_kg } = product.formula;
      const body: Schemas["FormulaInput"] = {
        number: revision.number + 1,
        lines,
        style_points,
        piece_kg,
        signed: { by: preferences.name, reason },
      };
      return record<Schemas["FormulaView"]>({
        path: `/api/v1/formulas/${id}/revisions/${crypto.randomUUID()}`,
        label: `${product.name}, revision ${revision.number + 1}`,
        body,
      });
    },
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["product", product.slug] });
      onDone();
    },
  });
  const refused = save.error instanceof Refused ? save.error : undefined;
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-4 border-l-4 border-ink bg-faint p-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <p className="w-full text-sm">
        Edited and not recorded: it moves the chain here, and nobody else's. A sheet is only planned
        from a recorded formula.
      </p>
      <label className="text-sm text-iron">
        Who
        <input
          className="field text-ink"
          value={preferences.name}
          onChange={(event) => prefer({ name: event.target.value })}
        />
      </label>
      <label className="flex-1 text-sm text-iron">
        Why
        <input
          className="field text-ink"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <button type="submit" className="act act-main" disabled={save.isPending}>
        Record revision {product.formula.revision.number + 1}
      </button>
      <button type="button" className="act" onClick={onDone}>
        Put back
      </button>
      {refused && (
        <p className="w-full text-stop">
          {refused.problem.errors?.map((error) => error.message).join(". ") ?? refused.message}
        </p>
      )}
    </form>
  );
}
