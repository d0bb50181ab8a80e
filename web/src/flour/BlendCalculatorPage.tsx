import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { SpecificationRule } from "../figures/SpecificationRule";
import { useScenario } from "../scenario/ScenarioProvider";
import { useAddressed } from "../scenario/useAddressed";
import { useUndoStack } from "../scenario/undo";
import { Refusal } from "../form/Refusal";
import { given } from "../units/number";
import { usePreferences } from "../units/preferences";
import { NumberField } from "../form/NumberField";
import { useFormat } from "../units/format";
import { BENCH_KEY, beginBlend, BLEND_IN_ADDRESS, type BlendDraft, type BlendLot } from "./blend";
import { BlendSave } from "./BlendSave";
import { FlourTabs } from "./FlourTabs";
import { Select } from "../form/Select";

/** Blends lots by share, all rules moving live, or solves for the cheapest within targets. */
export function BlendCalculatorPage() {
  const format = useFormat();
  const [draft, set] = useAddressed(BENCH_KEY, BLEND_IN_ADDRESS, beginBlend);
  const [change, undo] = useUndoStack(draft, set);
  const { data: calculation, error } = useBench(draft);
  const shares = calculation?.shares;
  const setLot = (at: number, edit: Partial<BlendLot>) =>
    change(({ lots }) => ({
      lots: lots.map((lot, i) => (i === at ? { ...lot, ...edit } : lot)),
    }));
  const solve = () =>
    calculation &&
    change(({ lots }) => ({
      lots: lots.map((lot, i) => ({
        ...lot,
        share: Number((calculation.solved.shares[i]?.share_pct ?? 0).toFixed(2)),
      })),
    }));
  return (
    <>
      <FlourTabs />
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1>Blend calculator</h1>
        {undo && (
          <button type="button" className="link" onClick={undo}>
            Undo
          </button>
        )}
      </div>
      <p className="text-sm text-iron">
        Shares of as-is mass. Properties mix by dry matter, falling number by liquefaction number; W
        only roughly (H).
      </p>
      <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
        <section aria-labelledby="lots-in">
          <h2 id="lots-in">Lots</h2>
          <Lots
            draft={draft}
            calculation={calculation}
            setLot={setLot}
            remove={(at) => change(({ lots }) => ({ lots: lots.filter((_, i) => i !== at) }))}
          />
          <AddLot
            taken={draft.lots.map((lot) => lot.lotId)}
            onAdd={(lotId) =>
              change(({ lots }) => ({
                lots: [
                  ...lots,
                  {
                    lotId,
                    share: lots.length === 0 ? 100 : Math.round(shares?.left_pct ?? 0),
                    price: null,
                  },
                ],
              }))
            }
          />
          {shares && draft.lots.length > 0 && (
            <p className={`mt-3 ${shares.is_whole ? "text-iron" : "text-stop"}`}>
              Shares add up to {shares.total_pct.toFixed(1)} %
              {!shares.is_whole && shares.of_100_pct && (
                <button
                  type="button"
                  className="link ml-3 text-ink"
                  onClick={() =>
                    change(({ lots }) => ({
                      lots: lots.map((lot, at) => ({
                        ...lot,
                        share: shares.of_100_pct?.[at] ?? lot.share,
                      })),
                    }))
                  }
                >
                  make it 100
                </button>
              )}
            </p>
          )}
          {calculation && calculation.price_per_t != null && calculation.price_per_t > 0 && (
            <p>
              <span className="figure text-2xl">{format.money(calculation.price_per_t)}</span>{" "}
              <span className="text-iron">per t</span>
            </p>
          )}
        </section>
        <section aria-labelledby="wanted">
          <h2 id="wanted">Blend against targets</h2>
          <Refusal error={error} />
          {draft.lots.length === 0 && (
            <p className="mt-2">
              Put two lots to the blend, say what is wanted, then move the shares or solve for them.
            </p>
          )}
          {calculation && draft.lots.length > 0 && (
            <>
              <Rules
                calculation={calculation}
                targets={draft.targets}
                onTarget={(key, edit) =>
                  change(({ targets }) => ({
                    targets: {
                      ...targets,
                      [key]: { ...(targets[key] ?? { min: "", max: "" }), ...edit },
                    },
                  }))
                }
              />
              <Solved calculation={calculation} onTake={solve} />
            </>
          )}
        </section>
      </div>
      {draft.lots.length > 0 && shares?.is_whole && <BlendSave lots={draft.lots} />}
    </>
  );
}

function useBench(draft: BlendDraft) {
  const { preferences } = usePreferences();
  const number = (text: string) => given(text, preferences.mark) ?? undefined;
  const targets = Object.entries(draft.targets)
    .map(([property, { min, max }]) => ({ property, min: number(min), max: number(max) }))
    .filter((target) => target.min !== undefined || target.max !== undefined);
  const parts = draft.lots.map((lot) => ({
    lot_id: lot.lotId,
    share_pct: lot.share,
    price_per_t: lot.price,
  }));
  const body = { parts, targets } as unknown as Schemas["BlendCalculationInput"];
  return useQuery({
    queryKey: ["bench", body],
    enabled: draft.lots.length > 0,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => answer(api.POST("/api/v1/blends/calculation", { body, signal })),
  });
}

interface LotsProps {
  draft: BlendDraft;
  calculation: Schemas["BlendCalculation"] | undefined;
  setLot: (at: number, edit: Partial<BlendLot>) => void;
  remove: (at: number) => void;
}

function Lots({ draft, calculation, setLot, remove }: LotsProps) {
  const lots = useNewestLots();
  return (
    <ul className="mt-1">
      {draft.lots.map((lot, at) => {
        const part = calculation?.parts.find((one) => one.lot_id === lot.lotId);
        const known = part ?? lots?.find((one) => one.id === lot.lotId);
        const name = known ? `${known.code}, ${known.flour}` : "a lot";
        return (
          <li key={lot.lotId} className="border-t border-hair py-2">
            <p className="flex items-baseline justify-between">
              <span>
                <b>{known?.code}</b> <span className="text-iron">{known?.flour}</span>
              </span>
              <button
                type="button"
                className="px-2 text-iron hover:text-stop"
                aria-label={`Take ${name} out of the blend`}
                onClick={() => remove(at)}
              >
                ✕
              </button>
            </p>
            {part && part.assumed.length > 0 && (
              <p className="text-sm text-crust">
                {part.assumed.join(", ")} from its other lots: not on its certificate
              </p>
            )}
            <div className="flex items-center gap-3">
              <input
                type="range"
                min="0"
                max="100"
                step="0.5"
                className="h-11 flex-1 accent-crust"
                aria-label={`Share of ${name}`}
                value={lot.share}
                onChange={(event) => setLot(at, { share: Number(event.target.value) })}
              />
              <NumberField
                className="w-20"
                place="hidden"
                label={`Share of ${name}, %`}
                kind="percent"
                value={lot.share}
                onSet={(share) => setLot(at, { share: Math.max(0, share ?? 0) })}
              />
              <div className="flex w-24 items-baseline text-sm text-iron">
                <NumberField
                  place="hidden"
                  label={`Price of ${name} per t`}
                  kind="number"
                  value={lot.price}
                  usual={part?.price_per_t ?? undefined}
                  onSet={(price) =>
                    setLot(at, { price: price === null ? null : Math.max(0, price) })
                  }
                />
                /t
              </div>
            </div>
          </li>
        );
      })}
    </ul>
  );
}

function useNewestLots() {
  return useQuery({
    queryKey: ["lots", "newest"],
    queryFn: () => answer(api.GET("/api/v1/lots", { params: { query: {} } })),
  }).data?.lots;
}

function AddLot({ taken, onAdd }: { taken: string[]; onAdd: (lotId: string) => void }) {
  const { scenario } = useScenario();
  const lots = useNewestLots();
  const free = lots?.filter((lot) => !taken.includes(lot.id));
  return (
    <p className="mt-2 border-t border-hair pt-3">
      <Select
        label="Add a lot"
        place="hidden"
        value=""
        none="add a lot …"
        options={(free ?? []).map((lot) => [
          lot.id,
          `${lot.code}, ${lot.flour}${lot.id === scenario.lot ? " (selected)" : ""}`,
        ])}
        onSet={onAdd}
      />
    </p>
  );
}

interface RulesProps {
  calculation: Schemas["BlendCalculation"];
  targets: BlendDraft["targets"];
  onTarget: (key: string, edit: Partial<{ min: string; max: string }>) => void;
}

function Rules({ calculation, targets, onTarget }: RulesProps) {
  const format = useFormat();
  return (
    <div className="overflow-x-auto">
      <table className="mt-1 w-full">
        <thead>
          <tr className="border-b border-ink">
            <th scope="col">property</th>
            <th scope="col" className="text-right">
              at least
            </th>
            <th scope="col" className="text-right">
              at most
            </th>
            <th scope="col" className="text-right">
              blend
            </th>
            <th scope="col" className="pl-3">
              <span className="sr-only">on a rule</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {calculation.rules.map((rule) => (
            <tr key={rule.property} className="border-b border-hair">
              <th scope="row" className="text-base font-normal text-ink">
                {rule.label} <span className="text-xs text-iron">{rule.unit}</span>
              </th>
              {(["min", "max"] as const).map((side) => (
                <td key={side} className="pl-1">
                  <input
                    className="field ml-auto block w-16 text-right"
                    inputMode="decimal"
                    autoComplete="off"
                    aria-label={`${rule.label}, ${side === "min" ? "at least" : "at most"}`}
                    value={targets[rule.property]?.[side] ?? ""}
                    onChange={(event) => onTarget(rule.property, { [side]: event.target.value })}
                  />
                </td>
              ))}
              <td className={`figure text-right text-lg ${rule.kept ? "" : "text-stop"}`}>
                {rule.value == null ? "–" : format.number(rule.value, rule.value < 5 ? 3 : 1)}
              </td>
              <td className="w-56 pl-3">
                <SpecificationRule
                  earlier={rule.parts}
                  rule={{
                    property: "protein",
                    basis: null,
                    must: true,
                    method: null,
                    other_method: false,
                    label: rule.label,
                    unit: rule.unit,
                    min: rule.min ?? null,
                    max: rule.max ?? null,
                    target: null,
                    value: rule.value ?? null,
                    fringe_min: 0,
                    fringe_max: 0,
                    verdict: rule.kept ? "in" : "out",
                    message: rule.kept ? "kept" : "not kept",
                  }}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Solved({
  calculation,
  onTake,
}: {
  calculation: Schemas["BlendCalculation"];
  onTake: () => void;
}) {
  const format = useFormat();
  const { solved, unpriced } = calculation;
  const shares = solved.shares
    .filter((share) => share.share_pct > 0.005)
    .map((share) => `${share.name} ${format.percent(share.share_pct)}`)
    .join(", ");
  return (
    <div className="mt-4 border-t border-ink pt-3">
      {solved.feasible ? (
        <p>
          <b>{unpriced.length > 0 ? "Within the targets:" : "Cheapest within the targets:"}</b>{" "}
          {shares}
          {solved.price_per_t > 0 && `, at ${format.money(solved.price_per_t)} per t`}.
          {unpriced.length > 0 && (
            <span className="block text-sm text-crust">
              {unpriced.join(", ")} {unpriced.length === 1 ? "has" : "have"} no price: which shares
              are cheapest is not known.
            </span>
          )}
        </p>
      ) : (
        <>
          <p className="font-semibold text-stop">No shares of these lots meet every target.</p>
          <ul className="mt-1 list-disc pl-5">
            {solved.conflicts.map((conflict) => (
              <li key={`${conflict.property} ${conflict.side}`}>{conflict.says}.</li>
            ))}
          </ul>
          <p className="mt-1">The nearest: {shares}.</p>
        </>
      )}
      <button type="button" className="act mt-2" onClick={onTake}>
        Use these shares
      </button>
    </div>
  );
}
