import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { useLotsOf } from "../scenario/useChain";
import { scenarioInput } from "../scenario/scenario";
import { EmptyState } from "../shell/EmptyState";
import { useScenarioContext } from "../shell/useScenarioContext";
import { VERDICT } from "../shell/verdict";
import { CompareTable } from "../table/CompareTable";
import { useFormat } from "../units/format";
import { WaterTabs } from "./WaterTabs";

const MOST = 3;

/** The selected product from other lots of its flour: what each would change, and why. */
export function CompareProductLotsPage() {
  const { chain, product, lot, others, input } = useScenarioContext();
  const { scenario, draft, method, change } = useScenario();
  const format = useFormat();
  const lots = useLotsOf(lot?.flour.id).data?.lots ?? [];
  const [chosen, choose] = useState<string[] | null>(null);
  const rest = lots.filter((one) => one.id !== lot?.id);
  const beside = (chosen ?? rest.slice(0, 2).map((one) => one.id)).filter((id) => id !== lot?.id);
  const found = useQueries({
    queries: beside.map((id) => ({
      queryKey: ["beside", id, input],
      enabled: input !== null,
      queryFn: async () => {
        const other = await answer(
          api.GET("/api/v1/lots/{lot_id}", { params: { path: { lot_id: id } } }),
        );
        const lotsOfOthers = others.flatMap((one) => one.lot ?? []);
        const now =
          product && scenarioInput(scenario, product, other, lotsOfOthers, { draft, method });
        if (!now || !input) return null;
        const { chain: its, changes } = await answer(
          api.POST("/api/v1/chain", { body: { now, before: input } }),
        );
        return { lot: other, chain: its, changes };
      },
    })),
  }).flatMap((query) => query.data ?? []);
  if (!chain?.water || !product || !lot)
    return (
      <>
        <WaterTabs />
        <EmptyState link="water" />
      </>
    );
  const columns = [{ lot, chain, changes: [] as Schemas["FigureChange"][] }, ...found];
  const rows: [string, (of: Schemas["Chain"]) => string][] = [
    ["dough absorption", (of) => (of.water ? format.percent(of.water.floor_pct) : "stops")],
    [
      "likely",
      (of) =>
        of.water ? `${format.number(of.water.low_pct)} to ${format.number(of.water.high_pct)}` : "",
    ],
    [
      "dough from 100 kg of flour",
      (of) => (of.dough ? format.mass(of.dough.cost.dough_yield) : ""),
    ],
    ["water temperature", (of) => (of.heat ? format.temperature(of.heat.water_c) : "")],
    ["ice", (of) => (of.heat && of.heat.ice_kg > 0 ? format.mass(of.heat.ice_kg) : "none")],
  ];
  return (
    <>
      <WaterTabs />
      <h1>{product.name} from other lots</h1>
      <p className="text-sm text-iron">
        The same dough, the same night; what each lot would change, and why
      </p>
      <fieldset className="mt-3 flex max-h-24 flex-wrap gap-x-4 gap-y-1 overflow-y-auto text-sm">
        <legend className="sr-only">
          Lots to compare {lot.code}, up to {MOST}
        </legend>
        {rest.slice(0, 24).map((one) => (
          <label key={one.id} className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={beside.includes(one.id)}
              disabled={!beside.includes(one.id) && beside.length >= MOST}
              onChange={() =>
                choose(
                  beside.includes(one.id)
                    ? beside.filter((id) => id !== one.id)
                    : [...beside, one.id],
                )
              }
            />
            {one.code} {one.verdict && VERDICT[one.verdict].mark}
          </label>
        ))}
      </fieldset>
      <CompareTable
        caption="Dough by lot"
        heads={columns.map((column, at) => ({
          key: column.lot.id,
          head: (
            <span className="text-base font-normal whitespace-nowrap">
              <b>{column.lot.code}</b>{" "}
              <span className={`text-sm ${VERDICT[column.chain.flour.verdict].colour}`}>
                {VERDICT[column.chain.flour.verdict].mark}{" "}
                {VERDICT[column.chain.flour.verdict].word}
              </span>
              {at === 0 ? (
                <span className="block text-sm text-iron">selected</span>
              ) : (
                <button
                  type="button"
                  className="link block text-sm text-iron"
                  onClick={() => {
                    // The two change places.
                    choose(beside.map((id) => (id === column.lot.id ? lot.id : id)));
                    change({ lot: column.lot.id });
                  }}
                >
                  Select this lot
                </button>
              )}
            </span>
          ),
        }))}
        groups={[
          {
            rows: rows.map(([name, of]) => ({
              key: name,
              label: name,
              cells: columns.map((column) => of(column.chain)),
            })),
          },
          {
            inOrder: true,
            rows: [
              {
                key: "because",
                label: "because",
                prose: true,
                differs: true,
                cells: columns.map((column) => (
                  <Contribution key={column.lot.id} column={column} />
                )),
              },
            ],
          },
        ]}
      />
      {rest.length === 0 && (
        <p className="mt-4 text-iron">
          There is no other lot of {lot.flour.name} yet. Take in its next certificate, and the two
          stand here side by side.
        </p>
      )}
    </>
  );
}

/** Why a lot's water is another, step by step, and what to mind with it. */
function Contribution({
  column,
}: {
  column: { chain: Schemas["Chain"]; changes: Schemas["FigureChange"][] };
}) {
  const format = useFormat();
  const floor = column.changes.find((move) => move.figure === "floor_pct");
  return (
    <ul>
      {floor?.because.map((one) => (
        <li key={one.label}>
          <b>{format.signed(one.delta)}</b> {one.label}
        </li>
      ))}
      {column.chain.water?.cautions.map((caution) => (
        <li key={caution.key} className="mt-1 text-crust">
          {format.text(caution.says)}
        </li>
      ))}
      {column.chain.flour.nonconformities.map((rule) => (
        <li key={rule.label} className="mt-1 text-iron">
          {rule.label}: {rule.message}
        </li>
      ))}
      {column.chain.error && <li className="mt-1 text-stop">{column.chain.error.message}</li>}
    </ul>
  );
}
