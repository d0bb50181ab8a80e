import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { FLOURS } from "../scenario/questions";
import { writeScenario } from "../scenario/scenario";
import { FieldText } from "../form/FieldText";
import { useKept } from "../storage/useKept";
import { useScenarioContext } from "../shell/useScenarioContext";
import { given } from "../units/number";
import { usePreferences } from "../units/preferences";
import { useFormat } from "../units/format";
import { CONVENTIONS } from "./StarterBox";
import { DoughTabs } from "./DoughTabs";
import { recorded } from "../scenario/documents";
import { usePlantParameters } from "../plant/usePlantParameters";
import { Select } from "../form/Select";
import { Form } from "../form/Form";

interface Line {
  ingredient: string;
  amount: string;
  /** Of a flour, which; the product's own if none. */
  flour?: string;
}

const FIRST: Line[] = [
  { ingredient: "flour", amount: "" },
  { ingredient: "water", amount: "" },
  { ingredient: "salt", amount: "" },
];
const KEPT = "ironpeel.amounts";

interface Written {
  lines: Line[];
  starter: string;
  /** How the starter is stated: by its amount, or as a share of something. */
  stated: "amount" | Schemas["StarterConvention"];
  hydration: string;
  waterIsTotal: boolean;
}

const begin = (kept?: Partial<Written>): Written => ({
  lines: FIRST,
  starter: "",
  stated: "amount",
  hydration: "100",
  waterIsTotal: false,
  ...kept,
});

/** A dough written down by amounts – cups, spoons, ounces, grams – understood in baker's percent. */
export function ConvertRecipePage() {
  const format = useFormat();
  const navigate = useNavigate();
  const { product } = useScenarioContext();
  const { scenario, set } = useScenario();
  const { preferences } = usePreferences();
  const ingredients = usePlantParameters()?.ingredients ?? [];
  const [written, write] = useKept(KEPT, begin);
  const { lines, starter, stated, hydration, waterIsTotal } = written;
  const flours = useQuery(FLOURS).data;
  const read = useMutation({
    networkMode: "always",
    mutationFn: () =>
      answer(
        api.POST("/api/v1/formula-amounts", {
          body: {
            decimal_mark: preferences.mark,
            water_is_total: waterIsTotal,
            lines: lines.filter((line) => line.amount.trim() !== ""),
            ...(starter.trim() && {
              starter: {
                ...(stated === "amount"
                  ? { amount: starter }
                  : { pct: given(starter, preferences.mark) as number, convention: stated }),
                hydration_pct: given(hydration, preferences.mark) as number,
              },
            }),
          },
        }),
      ),
  });
  const keep = (next: Partial<Written> | ((now: Written) => Partial<Written>)) => {
    write(next);
    read.reset();
  };
  const setLine = (at: number, change: Partial<Line>) =>
    keep(({ lines }) => ({
      lines: lines.map((line, i) => (i === at ? { ...line, ...change } : line)),
    }));
  // Only the lines with an amount are sent: a fault counts among those.
  const sent = lines.filter((line) => line.amount.trim() !== "");
  const found = read.data;
  const take = (is: Schemas["AmountsRead"]) => {
    if (!product) return;
    const starterPart: Schemas["PreparationInput"][] =
      is.starter == null
        ? []
        : [
            {
              kind: "starter",
              name: "starter",
              flour_pct: Number(is.starter.prefermented_flour_pct.toFixed(3)),
              water_pct: Number(is.starter.water_pct.toFixed(3)),
              lines: [],
            },
          ];
    const next = {
      ...recorded(product),
      lines: [
        { ingredient: "flour", pct: 100 },
        ...is.lines
          .filter(({ ingredient }) => !["flour", "water"].includes(ingredient))
          .map(({ ingredient, pct }) => ({ ingredient, pct: Number(pct.toFixed(3)) })),
      ],
      flours: is.flours.map(({ name, share_pct }) => ({
        name: name || product.flour.name,
        share_pct: Number(share_pct.toFixed(3)),
      })),
      parts: starterPart,
      hydration_pct: Number(is.effective_hydration_pct.typical.toFixed(2)),
      batch_kg: Number(is.dough_kg.typical.toPrecision(6)),
    };
    const change = { water: null, amount: null };
    set(change, { draft: next });
    void navigate({
      pathname: "/dough",
      search: writeScenario({ ...scenario, ...change }).toString(),
    });
  };
  return (
    <>
      <DoughTabs />
      <h1>Convert a recipe</h1>
      <p className="max-w-prose text-sm text-iron">
        As it is written on the card: 500 g, 2 1/3 cup, 1½ to 2 cups, 3 lb 4 oz, a packet, a pinch,
        2 eggs. A cup of flour is not a mass: what it may hold, by its grain, is carried through to
        the hydration. What stands twice is added up.
      </p>
      <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[30rem_minmax(0,1fr)]">
        <Form error={read.error} onSubmit={() => read.mutate()}>
          {lines.map((line, at) => {
            const is = `lines[${sent.indexOf(line)}]`;
            return (
              <div
                key={at}
                className="mb-2 grid grid-cols-[8.5rem_minmax(0,1fr)_8.5rem_2rem] items-start gap-3"
              >
                <Select
                  label={`Ingredient ${at + 1}`}
                  className={line.ingredient === "flour" && flours ? "" : "col-span-2"}
                  place="hidden"
                  look="field"
                  field={`${is}.ingredient`}
                  value={line.ingredient}
                  options={ingredients.map((one) => [one.ingredient, one.label])}
                  onSet={(ingredient) => setLine(at, { ingredient })}
                />
                {line.ingredient === "flour" && flours && (
                  <Select
                    label={`Flour ${at + 1}`}
                    place="hidden"
                    look="field"
                    field={`${is}.flour`}
                    value={line.flour ?? ""}
                    options={[
                      ["", "the product's"],
                      ...flours.map(({ name }) => [name, name] as const),
                    ]}
                    onSet={(flour) => setLine(at, { flour })}
                  />
                )}
                <FieldText
                  label={`Amount of ingredient ${at + 1}`}
                  place="hidden"
                  field={`${is}.amount`}
                  value={line.amount}
                  onChange={(amount) => setLine(at, { amount })}
                />
                <button
                  type="button"
                  className="text-lg text-iron hover:text-stop"
                  aria-label={`Take ingredient ${at + 1} out`}
                  onClick={() => keep(({ lines }) => ({ lines: lines.filter((_, i) => i !== at) }))}
                >
                  ×
                </button>
              </div>
            );
          })}
          <button
            type="button"
            className="link text-sm"
            onClick={() =>
              keep(({ lines }) => ({ lines: [...lines, { ingredient: "yeast", amount: "" }] }))
            }
          >
            Another ingredient
          </button>
          <div className="mt-3 grid grid-cols-2 gap-4">
            <FieldText
              label="Starter, if any"
              placeholder={stated === "amount" ? "as 1 cup or 100 g" : "as 20"}
              value={starter}
              onChange={(next) => keep({ starter: next })}
              field={stated === "amount" ? "starter.amount" : "starter.pct"}
            />
            <Select
              label="Stated as"
              value={stated}
              options={[
                ["amount", "an amount"],
                ...CONVENTIONS.map(([key, word]) => [key, `% ${word}`] as const),
              ]}
              onSet={(stated) => keep({ stated })}
            />
            <FieldText
              label="Its hydration, %"
              value={hydration}
              onChange={(next) => keep({ hydration: next })}
              field="starter.hydration_pct"
            />
          </div>
          <label className="mt-3 flex items-center gap-2">
            <input
              type="checkbox"
              checked={waterIsTotal}
              onChange={({ target }) => keep({ waterIsTotal: target.checked })}
            />
            The water is all of it, the starter's among it
          </label>
          <button type="submit" className="act act-main mt-4" disabled={read.isPending}>
            Calculate
          </button>
        </Form>
        {found ? (
          <RecipeResult found={found} />
        ) : (
          <p className="text-iron">
            Percent, hydration and the starter in all its conventions will stand here, with how sure
            they are.
          </p>
        )}
      </div>
      {found && (
        <p className="mt-4">
          {product ? (
            <button type="button" className="act" onClick={() => take(found)}>
              Use in {product.name}, water at{" "}
              {format.percent(found.effective_hydration_pct.typical)}
            </button>
          ) : (
            <span className="text-iron">Select a product to carry this over into its formula.</span>
          )}
        </p>
      )}
    </>
  );
}

function RecipeResult({ found }: { found: Schemas["AmountsRead"] }) {
  const format = useFormat();
  const likely = ({ low, high }: Schemas["Estimate"]) =>
    low === high ? "" : `, likely ${format.number(low)} to ${format.number(high)}`;
  return (
    <section aria-label="Result">
      <div className="flex flex-wrap gap-x-10 gap-y-3">
        <p className="text-sm">
          <span className="figure block text-4xl text-water">
            {format.percent(found.hydration_pct.typical)}
          </span>
          hydration{likely(found.hydration_pct)}
        </p>
        <p className="text-sm">
          <span className="figure block text-2xl">
            {format.percent(found.effective_hydration_pct.typical)}
          </span>
          effective{likely(found.effective_hydration_pct)}
        </p>
        <p className="text-sm">
          <span className="figure block text-2xl">
            {format.mass(found.dough_kg.typical, 0.001)}
          </span>
          of dough on {format.mass(found.flour_kg.typical, 0.001)} of flour
        </p>
      </div>
      <table className="mt-3 w-full max-w-xl">
        <caption className="sr-only">The dough in baker's percent</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col">ingredient</th>
            <th scope="col" className="text-right">
              mass
            </th>
            <th scope="col" className="text-right">
              may be
            </th>
            <th scope="col" className="text-right">
              % on all flour
            </th>
          </tr>
        </thead>
        <tbody>
          {found.lines.map((line) => (
            <tr key={`${line.ingredient} ${line.flour ?? ""}`} className="border-b border-hair">
              <th scope="row" className="py-0.5 text-base font-normal text-ink">
                {line.label}
              </th>
              <td className="text-right">{format.mass(line.kg.typical, 0.001)}</td>
              <td className="text-right text-sm text-iron">
                {line.kg.low !== line.kg.high &&
                  `${format.mass(line.kg.low, 0.001)} to ${format.mass(line.kg.high, 0.001)}`}
              </td>
              <td className="figure text-right">{format.percent(line.pct, 2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.starter && (
        <dl className="mt-3 max-w-xl text-sm">
          {CONVENTIONS.map(([key, word]) => (
            <div key={key} className="flex justify-between border-t border-hair py-0.5">
              <dt className="text-iron">{word}</dt>
              <dd className="figure">{format.percent(found.starter?.[`${key}_pct`] ?? 0, 2)}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}
