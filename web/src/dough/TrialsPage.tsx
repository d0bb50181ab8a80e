import { useMutation, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { Author } from "../form/Author";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../form/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { DoughTabs } from "./DoughTabs";
import { TrialList } from "./TrialList";
import { TrialTable } from "./TrialTable";
import { useScenario } from "../scenario/ScenarioProvider";
import { useAddressed } from "../scenario/useAddressed";
import { keptTrial, TRIAL_IN_ADDRESS, TRIAL_KEY } from "./trial";
import { Faults } from "../form/Faults";

const MOST = 6;

/** What is wanted, the interventions for it with their consequences, and a trial set from those chosen. */
export function TrialsPage() {
  const { scenario } = useScenario();
  const { chain, product, lot, input } = useScenarioContext();
  const format = useFormat();
  const [{ goal, interventions, kg }, set] = useAddressed(
    TRIAL_KEY + (scenario.product ?? ""),
    TRIAL_IN_ADDRESS,
    keptTrial,
  );
  const wishes = useQuery({
    queryKey: ["wishes"],
    queryFn: () => answer(api.GET("/api/v1/quality-goals")),
  }).data;
  const offered = useQuery({
    queryKey: ["interventions", input, goal],
    enabled: input !== null,
    queryFn: () => {
      if (!input) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/interventions", { body: { scenario: input, goal } }));
    },
  });
  if (!chain || !product || !lot || !input)
    return (
      <>
        <DoughTabs />
        <EmptyState link="dough" />
      </>
    );
  const moved = (
    now: number | null | undefined,
    was: number | null | undefined,
    words: (delta: number) => string,
  ) => (now == null || was == null || Math.abs(now - was) < 5e-4 ? "–" : words(now - was));
  const points = (delta: number) => format.signed(delta);
  const time = (delta: number) => (delta < 0 ? "−" : "+") + format.minutes(Math.abs(delta));
  const money = (delta: number) => format.signed(delta, 3);
  const toggle = (lever: Schemas["Intervention"]) =>
    set({
      interventions: interventions.includes(lever)
        ? interventions.filter((one) => one !== lever)
        : [...interventions, lever],
    });
  return (
    <>
      <DoughTabs />
      <h1>Trials of {product.name}</h1>
      <p className="text-sm text-iron">
        Choose a goal; each change is applied alone to this dough from {lot.code}.
      </p>
      <div role="group" aria-label="Goal" className="mt-3 flex flex-wrap gap-2">
        {wishes?.map((one) => (
          <button
            key={one.goal}
            type="button"
            aria-pressed={one.goal === goal}
            className="border border-iron px-3 py-1.5 text-sm aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() => set({ goal: one.goal })}
          >
            {format.text(one.label)}
          </button>
        ))}
      </div>
      <Refusal error={offered.error} />
      {offered.data?.length === 0 && (
        <p className="mt-4">No known change does that for this dough.</p>
      )}
      {offered.data && offered.data.length > 0 && (
        <div className="overflow-x-auto">
          <table className="mt-4 w-full">
            <caption className="sr-only">Changes with their effects</caption>
            <thead>
              <tr className="border-b border-ink">
                <th scope="col" className="py-1">
                  change
                </th>
                <th scope="col" className="text-right">
                  water, points
                </th>
                <th scope="col" className="px-3 text-right">
                  ceiling, points
                </th>
                <th scope="col" className="text-right">
                  time
                </th>
                <th scope="col" className="px-3 text-right">
                  cost of a kilo
                </th>
                <th scope="col">handling</th>
                <th scope="col">trade-off</th>
                <th scope="col" className="text-right">
                  include
                </th>
              </tr>
            </thead>
            <tbody>
              {offered.data.map(({ intervention, label, does, trade_off, variant }) => (
                <tr key={intervention} className="border-b border-hair align-top">
                  <th scope="row" className="max-w-64 py-1.5 pr-4 text-base font-semibold text-ink">
                    {format.text(label)}
                    <span className="block text-sm font-normal text-iron">{does}</span>
                  </th>
                  <td className="figure pt-1.5 text-right whitespace-nowrap">
                    {moved(variant.dough_absorption_pct, chain.water?.floor_pct, points)}
                  </td>
                  <td className="figure px-3 pt-1.5 text-right whitespace-nowrap">
                    {moved(variant.ceiling_pct, chain.water?.ceiling_pct, points)}
                  </td>
                  <td className="figure pt-1.5 text-right whitespace-nowrap">
                    {moved(variant.total_min, chain.method.total_min, time)}
                  </td>
                  <td className="figure px-3 pt-1.5 text-right whitespace-nowrap">
                    {moved(variant.cost_per_kg, chain.dough?.cost.per_kg, money)}
                  </td>
                  <td className="pt-1.5 pr-4 text-sm">{variant.error ?? variant.handling}</td>
                  <td className="pt-1.5 pr-4 text-sm text-iron">{trade_off}</td>
                  <td className="pt-1.5 text-right">
                    <input
                      type="checkbox"
                      className="h-5 w-5"
                      aria-label={`Try ${label}`}
                      checked={interventions.includes(intervention)}
                      disabled={
                        !interventions.includes(intervention) && interventions.length >= MOST
                      }
                      onChange={() => toggle(intervention)}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {interventions.length > 0 && (
        <SetOut
          interventions={interventions}
          kg={kg}
          setKg={(next) => set({ kg: next ?? 1 })}
          input={input}
          slug={product.slug}
        />
      )}
      <TrialList />
    </>
  );
}

interface SetOutProps {
  interventions: Schemas["Intervention"][];
  kg: number;
  setKg: (kg: number | null) => void;
  input: Schemas["ScenarioInput"];
  slug: string;
}

/** The doughs of the trial side by side, to keep and print. */
function SetOut({ interventions, kg, setKg, input, slug }: SetOutProps) {
  const goOn = useGoOn();
  const { search } = useScenario();
  const body = { scenario: input, interventions, kg };
  const set = useQuery({
    queryKey: ["trial set", body],
    queryFn: () => answer(api.POST("/api/v1/trial-sets", { body })),
  });
  const keep = useMutation({
    networkMode: "always",
    mutationFn: () =>
      record<Schemas["TrialView"]>({
        path: `/api/v1/trials/${crypto.randomUUID()}`,
        label: `trial of ${slug}`,
        body: { ...body, slug },
      }),
    onSuccess: (trial) => goOn({ pathname: `/trials/${trial.id}`, search }),
  });
  return (
    <section aria-labelledby="set" className="mt-8 border-t-2 border-ink pt-3">
      <Faults error={set.error ?? keep.error}>
        <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
          <h2 id="set" className="text-lg">
            The trial: unchanged, each change alone, all changes
          </h2>
          <NumberField
            className="w-32"
            label="Dough of each"
            kind="mass"
            value={kg}
            onSet={setKg}
            field="kg"
          />
          <Author label="Set up by" />
          <button
            type="button"
            className="act act-main"
            disabled={keep.isPending || !set.data}
            onClick={() => keep.mutate()}
          >
            Save trial
          </button>
        </div>
      </Faults>
      {set.data && <TrialTable set={set.data} />}
    </section>
  );
}
