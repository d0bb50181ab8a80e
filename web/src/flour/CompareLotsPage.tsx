import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { AbsorptionChange } from "../figures/AbsorptionChange";
import { useScenario } from "../scenario/ScenarioProvider";
import { lastWhile } from "../scenario/lastWhile";
import { useLot, useLotsOf } from "../scenario/useChain";
import { Refusal } from "../form/Refusal";
import { ORIGIN } from "../shell/Derivation";
import { CompareTable } from "../table/CompareTable";
import { useFormat } from "../units/format";
import { FlourTabs } from "./FlourTabs";
import { NoLot } from "./NoLot";
import { Select } from "../form/Select";

/** What changed from one lot to another, why it drinks differently, and what that does. */
export function CompareLotsPage() {
  const { scenario, search, show } = useScenario();
  const against = new URLSearchParams(search).get("against");
  const lot = useLot(scenario.lot).data;
  const lots = useLotsOf(lot?.flour.id).data?.lots;
  const asked = useQuery({
    queryKey: ["change", scenario.lot, against],
    enabled: scenario.lot !== null,
    placeholderData: lastWhile("change", scenario.lot),
    queryFn: () =>
      answer(
        api.GET("/api/v1/lots/{lot_id}/comparison", {
          params: {
            path: { lot_id: scenario.lot ?? "" },
            query: against === "target" ? { target: true } : against ? { against } : {},
          },
        }),
      ),
  });
  const change = asked.data;
  const compared = change?.against;
  return (
    <>
      <FlourTabs />
      {!scenario.lot && <NoLot />}
      <Refusal error={asked.error} />
      {lot && (
        <h1 className="flex flex-wrap items-baseline gap-x-3">
          {lot.code}
          <Select
            label="against"
            place="beside"
            className="text-base font-normal"
            value={compared?.lot_id ?? (compared ? "target" : "")}
            none="no other lot"
            options={[
              ["target", "the specification's targets"],
              ...(lots ?? [])
                .filter((one) => one.id !== lot.id)
                .map((one) => [one.id, one.code] as const),
            ]}
            onSet={(against) => show({ against })}
          />
        </h1>
      )}
      {change && !compared && (
        <p className="mt-3">
          This is the first lot of its flour; there is none before it to compare with.
        </p>
      )}
      {compared && <Told change={compared.comparison} />}
    </>
  );
}

function Told({ change }: { change: Schemas["LotComparison"] }) {
  const format = useFormat();
  const { absorption_difference, consequences, differences } = change;
  return (
    <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <section aria-labelledby="does">
        <h2 id="does">Effect on the dough</h2>
        {consequences.length === 0 && (
          <p className="mt-2">
            Nothing that a baker would notice: every change is within what the methods repeat to.
          </p>
        )}
        <dl className="mt-1">
          {consequences.map((one) => (
            <div key={one.key} className="border-t border-hair py-2">
              <dt className="text-sm text-iron">{one.subject}</dt>
              <dd
                className={one.key === "damaged_starch" ? "text-lg font-semibold text-crust" : ""}
              >
                {one.message}.
              </dd>
            </div>
          ))}
        </dl>
        <h2 className="mt-6">
          Points of water on 14 %
          {absorption_difference.measured == null && (
            <span className="font-normal text-iron">, no absorption measured on both</span>
          )}
        </h2>
        <div className="mt-2">
          <AbsorptionChange absorption_difference={absorption_difference} />
        </div>
        <details className="mt-2 text-sm">
          <summary>Coefficients</summary>
          <table className="mt-1">
            <tbody>
              {absorption_difference.coefficients.map((one) => (
                <tr key={one.name}>
                  <td className="pr-4">{one.name}</td>
                  <td className="pr-4 text-right">
                    {format.plain(one.value)}, {format.plain(one.low)} to {format.plain(one.high)}
                  </td>
                  <td className="text-iron">
                    {ORIGIN[one.origin].letter} · {one.source}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      </section>
      <section aria-labelledby="readings">
        <h2 id="readings">Differences by property</h2>
        <CompareTable
          caption="Differences by property"
          heads={[
            { key: "was", head: "was" },
            { key: "is", head: "is" },
            { key: "change", head: "change" },
          ]}
          groups={[
            {
              rows: differences.map((one) => ({
                key: one.property,
                label: `${one.label}, ${one.unit}`,
                differs: one.real,
                cells: [
                  format.plain(Number(one.before.toPrecision(4))),
                  format.plain(Number(one.after.toPrecision(4))),
                  format.signed(one.after - one.before, 2),
                ],
              })),
            },
          ]}
        />
        <p className="mt-1 text-sm text-iron">
          Grey: within what the method repeats to. Ash on dry matter, damaged starch as is, the rest
          on 14 %.
        </p>
      </section>
    </div>
  );
}
