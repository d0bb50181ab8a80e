import { useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FieldText } from "../form/FieldText";
import { NumberField } from "../form/NumberField";
import { SaveEdited } from "../form/SaveEdited";
import { ProductChoice } from "../results/ProductChoice";
import { ResultsTabs } from "../results/ResultsTabs";
import { useAsked } from "../results/useAsked";
import { useScenario } from "../scenario/ScenarioProvider";
import { useMay } from "../session/session";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";

type Of = Schemas["Characteristic"];
type Line = Schemas["SheetLine"];

/** What was changed of a standard and is not saved. */
interface Edited {
  weights: Partial<Record<Of, number>>;
  targets: Partial<Record<Of, { target: number | null; range: number | null }>>;
  anchors: Partial<Record<Of, string>>;
}
const begin = (kept?: Partial<Edited>): Edited => ({
  weights: {},
  targets: {},
  anchors: {},
  ...kept,
});

/** What a product is held to when it is judged: weights, measured targets, and its own best. */
export function StandardPage() {
  const [search, set] = useAsked();
  const { scenario } = useScenario();
  const product = search.get("of") ?? scenario.product ?? "";
  return (
    <>
      <ResultsTabs />
      <h1>Standard sample</h1>
      <div className="mt-2 w-72">
        <ProductChoice product={product} onSet={(of) => set({ of })} />
      </div>
      {product && <Standard key={product} product={product} />}
    </>
  );
}

function Standard({ product }: { product: string }) {
  const format = useFormat();
  const queries = useQueryClient();
  const may = useMay("change");
  const [edited, edit, forget] = useKept(`ironpeel.standard.${product}`, begin);
  const { data: found } = useQuery({
    queryKey: ["standard", product],
    queryFn: () =>
      answer(api.GET("/api/v1/products/{slug}/standard", { params: { path: { slug: product } } })),
  });
  if (!found) return null;
  const { lines, standard, revisions } = found;
  const number = (revisions[0]?.number ?? 0) + 1;
  const weightOf = (line: Line) => edited.weights[line.of] ?? line.weight;
  const sum = lines.reduce((all, line) => all + weightOf(line), 0);
  const targetOf = (line: Line) => edited.targets[line.of] ?? line.measure?.target ?? undefined;
  const isEdited = [edited.weights, edited.targets, edited.anchors].some(
    (of) => Object.keys(of).length > 0,
  );
  const next = () => {
    const anchors = { ...standard.anchors, ...edited.anchors };
    const own = lines.flatMap((line) => {
      const isOwn = edited.targets[line.of] ?? standard.targets[line.of];
      const target = targetOf(line);
      return isOwn && target?.target != null ? [[line.of, target] as const] : [];
    });
    const weights =
      Object.keys(edited.weights).length > 0 || Object.keys(standard.weights).length > 0
        ? Object.fromEntries(lines.map((line) => [line.of, weightOf(line)]))
        : {};
    return { weights, targets: Object.fromEntries(own), anchors };
  };
  return (
    <>
      <p className="mt-3 max-w-3xl text-iron">
        5 is this standard, not “most”. What can be measured is marked by its distance from the
        target: the mark falls to 1 over the range.
      </p>
      <table className="mt-3 w-full">
        <caption className="sr-only">Standard</caption>
        <thead>
          <tr>
            <th>characteristic</th>
            <th>weight</th>
            <th>a 5 is</th>
            <th>measured</th>
            <th>target</th>
            <th>range</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => {
            const target = targetOf(line);
            const setTarget = (change: Partial<{ target: number | null; range: number | null }>) =>
              edit((now) => ({
                targets: {
                  ...now.targets,
                  [line.of]: {
                    target: target?.target ?? null,
                    range: target?.range ?? null,
                    ...change,
                  },
                },
              }));
            return (
              <tr key={line.of} className="border-t border-hair align-top">
                <td className="py-1 pr-4 font-semibold">{line.label}</td>
                <td className="w-20 pr-4">
                  <NumberField
                    label={`weight of ${line.label}`}
                    place="hidden"
                    kind="number"
                    field={`standard.weights.${line.of}`}
                    value={weightOf(line)}
                    onSet={(weight) =>
                      edit((now) => ({ weights: { ...now.weights, [line.of]: weight ?? 0 } }))
                    }
                  />
                </td>
                <td className="pr-4">
                  <FieldText
                    label={`a 5 of ${line.label}`}
                    place="hidden"
                    field={`standard.anchors.${line.of}`}
                    value={edited.anchors[line.of] ?? line.anchors[2] ?? ""}
                    onChange={(anchor) =>
                      edit((now) => ({ anchors: { ...now.anchors, [line.of]: anchor } }))
                    }
                  />
                </td>
                {line.measure ? (
                  <>
                    <td className="py-1 pr-4 text-sm text-iron">
                      {line.measure.words}
                      {line.measure.unit && `, ${line.measure.unit}`}
                    </td>
                    {(["target", "range"] as const).map((of) => (
                      <td key={of} className="w-24 pr-4">
                        <NumberField
                          label={`${of} of ${line.label}`}
                          place="hidden"
                          kind="number"
                          field={`standard.targets.${line.of}.${of}`}
                          value={target?.[of] ?? null}
                          onSet={(value) => setTarget({ [of]: value })}
                        />
                      </td>
                    ))}
                  </>
                ) : (
                  <td colSpan={3} className="py-1 text-sm text-iron">
                    marked by hand
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          <tr className="border-t-2 border-ink">
            <td>total</td>
            <td className={Math.abs(sum - 100) > 0.1 ? "font-semibold text-stop" : ""}>
              {format.plain(sum)}
            </td>
            <td colSpan={4}></td>
          </tr>
        </tfoot>
      </table>
      {may && isEdited && (
        <SaveEdited
          what="standard"
          of={`standard.${product}`}
          number={number}
          onPutBack={() => forget()}
          save={async (signed) => {
            await record({
              path: `/api/v1/products/${product}/standard/${crypto.randomUUID()}`,
              label: `standard of ${found.product}`,
              body: { number, standard: next(), signed },
            });
            forget();
            await queries.invalidateQueries({ queryKey: ["standard", product] });
          }}
        />
      )}
      {revisions.length > 0 && (
        <details className="mt-4 text-sm">
          <summary>{format.count(revisions.length, "revision")}</summary>
          <ol>
            {revisions.map((one) => (
              <li key={one.id} className="border-t border-hair py-1">
                {one.number}: {one.made_by}, {format.moment(one.made_at)}: {one.reason}
              </li>
            ))}
          </ol>
        </details>
      )}
    </>
  );
}
