import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, Refused, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { NameField } from "../shell/NameField";
import { NoHand } from "../shell/NoHand";
import { Refusal } from "../shell/Refusal";
import { useHeld } from "../shell/useHeld";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";
import { Quantity } from "../units/Quantity";
import { DoughTabs } from "./DoughTabs";
import { TrialList } from "./TrialList";
import { VariantTable } from "./VariantTable";
import { useHand } from "../hand/HandProvider";

const MOST = 6;

/** What is wanted, the levers for it with their consequences, and a trial set from those chosen. */
export function VariantsPage() {
  const { chain, product, lot, input } = useHeld();
  const format = useFormat();
  const [wish, setWish] = useState<Schemas["Wish"]>("open_crumb");
  const [levers, setLevers] = useState<Schemas["TrialLever"][]>([]);
  const wishes = useQuery({
    queryKey: ["wishes"],
    queryFn: () => answer(api.GET("/api/v1/wishes")),
  }).data;
  const offered = useQuery({
    queryKey: ["levers", input, wish],
    enabled: input !== null,
    queryFn: () => {
      if (!input) throw new Error("asked without a dough in hand");
      return answer(api.POST("/api/v1/levers", { body: { hand: input, wish } }));
    },
  });
  if (!chain || !product || !lot || !input)
    return (
      <>
        <DoughTabs />
        <NoHand link="dough" />
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
  const toggle = (lever: Schemas["TrialLever"]) =>
    setLevers(levers.includes(lever) ? levers.filter((one) => one !== lever) : [...levers, lever]);
  return (
    <>
      <DoughTabs />
      <h1>Variants of {product.name}</h1>
      <p className="text-sm text-iron">
        Say what is wanted; each lever is pulled alone on this dough from {lot.code}.
      </p>
      <div role="group" aria-label="What is wanted" className="mt-3 flex flex-wrap gap-2">
        {wishes?.map((one) => (
          <button
            key={one.wish}
            type="button"
            aria-pressed={one.wish === wish}
            className="border border-iron px-3 py-1.5 text-sm aria-pressed:bg-ink aria-pressed:text-paper"
            onClick={() => setWish(one.wish)}
          >
            {format.says(one.label)}
          </button>
        ))}
      </div>
      <Refusal error={offered.error} />
      {offered.data?.length === 0 && (
        <p className="mt-4">No lever of the trade does that for this dough.</p>
      )}
      {offered.data && offered.data.length > 0 && (
        <div className="overflow-x-auto">
          <table className="mt-4 w-full">
            <caption className="sr-only">Levers with their consequences</caption>
            <thead>
              <tr className="border-b border-ink">
                <th scope="col" className="py-1">
                  lever
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
                  try
                </th>
              </tr>
            </thead>
            <tbody>
              {offered.data.map(({ lever, label, does, trade_off, variant }) => (
                <tr key={lever} className="border-b border-hair align-top">
                  <th scope="row" className="max-w-64 py-1.5 pr-4 text-base font-semibold text-ink">
                    {format.says(label)}
                    <span className="block text-sm font-normal text-iron">{does}</span>
                  </th>
                  <td className="figure pt-1.5 text-right whitespace-nowrap">
                    {moved(variant.floor_pct, chain.water?.floor_pct, points)}
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
                  <td className="pt-1.5 pr-4 text-sm">{variant.trouble ?? variant.handling}</td>
                  <td className="pt-1.5 pr-4 text-sm text-iron">{trade_off}</td>
                  <td className="pt-1.5 text-right">
                    <input
                      type="checkbox"
                      className="h-5 w-5"
                      aria-label={`Try ${label}`}
                      checked={levers.includes(lever)}
                      disabled={!levers.includes(lever) && levers.length >= MOST}
                      onChange={() => toggle(lever)}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {levers.length > 0 && <SetOut levers={levers} input={input} slug={product.slug} />}
      <TrialList />
    </>
  );
}

interface SetOutProps {
  levers: Schemas["TrialLever"][];
  input: Schemas["HandInput"];
  slug: string;
}

/** The doughs of the trial side by side, to keep and print. */
function SetOut({ levers, input, slug }: SetOutProps) {
  const navigate = useNavigate();
  const { search } = useHand();
  const { preferences } = usePreferences();
  const [kg, setKg] = useState<number | null>(1);
  const body = { hand: input, levers, kg: kg ?? 1 };
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
        body: { ...body, slug, by: preferences.name },
      }),
    onSuccess: (trial) => void navigate({ pathname: `/trials/${trial.id}`, search }),
  });
  const fault = set.error instanceof Refused ? set.error.at("kg") : undefined;
  return (
    <section aria-labelledby="set" className="mt-8 border-t-2 border-ink pt-3">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <h2 id="set" className="text-lg">
          The trial: as it is, each change alone, all together
        </h2>
        <div className="w-32">
          <Quantity label="Dough of each" kind="mass" value={kg} onSet={setKg} fault={fault} />
        </div>
        <NameField
          label="Set out by"
          fault={keep.error instanceof Refused ? keep.error.at("by") : undefined}
        />
        <button
          type="button"
          className="act act-main"
          disabled={keep.isPending || !set.data}
          onClick={() => keep.mutate()}
        >
          Keep it, to print
        </button>
      </div>
      <Refusal error={set.error} placed={/^kg$/} />
      <Refusal error={keep.error} placed={/^(by|kg)$/} />
      {set.data && <VariantTable set={set.data} />}
    </section>
  );
}
