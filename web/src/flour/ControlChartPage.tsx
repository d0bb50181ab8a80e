import { useQueries, useQuery } from "@tanstack/react-query";
import { useLocation, useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { ControlChart } from "../figures/ControlChart";
import { useScenario } from "../scenario/ScenarioProvider";
import { writeScenario } from "../scenario/scenario";
import { lastWhile } from "../scenario/lastWhile";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";
import { FlourChoice } from "./FlourChoice";
import { FlourTabs } from "./FlourTabs";
import { useFlourInView } from "./useFlour";

const CHARTED = [
  ["damaged_starch", "damaged starch"],
  ["protein", "protein"],
  ["ash", "ash"],
  ["absorption", "absorption"],
  ["falling_number", "falling number"],
  ["w", "W"],
  ["moisture", "moisture"],
  ["stability", "stability"],
  ["development", "development"],
] as const;
type Charted = (typeof CHARTED)[number][0];

/** A property over the lots of a flour: what is in control, what is out of it, what shifts. */
export function ControlChartPage() {
  const { flour, flours } = useFlourInView();
  const { scenario, search, show: set } = useScenario();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const shown = new URLSearchParams(search);
  const property = (shown.get("property") ?? "damaged_starch") as Charted;
  const [from, to] = [shown.get("since"), shown.get("until")];
  const asked = useQuery({
    queryKey: ["drift", flour?.id, property, from, to],
    enabled: flour !== undefined,
    placeholderData: lastWhile("drift", flour?.id, property),
    queryFn: () => drift(flour?.id ?? "", property, from, to),
  });
  const view = asked.data;
  const toLot = (lot: string) =>
    void navigate({ pathname: "/flour", search: writeScenario({ ...scenario, lot }).toString() });
  const strays = view?.drift?.points.filter((point) => point.beyond).length ?? 0;
  return (
    <>
      <FlourTabs />
      <div className="flex flex-wrap items-end gap-x-8 gap-y-2">
        <FlourChoice
          path={pathname.split("/").slice(0, 3).join("/")}
          flour={flour}
          flours={flours}
        />
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="sr-only">Property</legend>
          {CHARTED.map(([key, label]) => (
            <label
              key={key}
              className={`cursor-pointer ${key === property ? "font-semibold" : "text-iron"}`}
            >
              <input
                type="radio"
                name="property"
                className="mr-1 accent-current"
                checked={key === property}
                onChange={() => set({ property: key })}
              />
              {label}
            </label>
          ))}
        </fieldset>
        {from && (
          <button type="button" className="link" onClick={() => set({ since: null, until: null })}>
            The whole time
          </button>
        )}
      </div>
      <Refusal error={asked.error} />
      {view && !view.drift && (
        <p className="mt-4">
          Too few lots of {flour?.name} have {view.label} on record: a chart begins with three.
        </p>
      )}
      {view?.drift && (
        <>
          <div className="mt-3 overflow-x-auto">
            <ControlChart
              view={view}
              lotId={scenario.lot}
              onLot={toLot}
              onBrush={(first, last) => set({ since: first, until: after(last) })}
            />
          </div>
          <p className="mt-1 text-sm text-iron">
            Shaded: the specification. Line: moving average, a fifth from each new lot. Ring: beyond
            three sigma
            {strays > 0 && ` (${strays})`}. Ochre dots: eight or more in a row on one side. Click a
            lot to open it; drag across the chart to look at a period.
          </p>
          <div className="mt-5 grid gap-10 lg:grid-cols-2">
            <Unusual view={view} onLot={toLot} />
            <Beside flours={flours ?? []} flour={flour} property={property} />
          </div>
        </>
      )}
    </>
  );
}

const drift = (flour_id: string, property: Charted, from: string | null, to: string | null) =>
  answer(
    api.GET("/api/v1/flours/{flour_id}/control-chart", {
      params: {
        path: { flour_id },
        query: { property, ...(from ? { from } : {}), ...(to ? { to } : {}) },
      },
    }),
  );

/** A second later, so that the last lot of a period is inside it. */
const after = (iso: string) => new Date(new Date(iso).getTime() + 1000).toISOString();

function Unusual({ view, onLot }: { view: Schemas["DriftView"]; onLot: (lot: string) => void }) {
  const format = useFormat();
  const rows = (view.drift?.points ?? [])
    .map((point, at) => ({ point, lot: view.lots[at] }))
    .reverse();
  const unusual = rows.filter(({ point }) => point.beyond || point.run || point.drifting);
  const shown = unusual.length > 0 ? unusual : rows.slice(0, 8);
  return (
    <section aria-labelledby="unusual">
      <h2 id="unusual">
        {unusual.length > 0 ? "Out of control" : "Nothing unusual; the newest lots"}
      </h2>
      <div className="mt-1 max-h-80 overflow-auto">
        <table className="w-full">
          <thead>
            <tr className="border-b border-ink">
              <th scope="col">lot</th>
              <th scope="col">received</th>
              <th scope="col" className="text-right">
                {view.label} {view.unit}
              </th>
              <th scope="col" className="pl-4">
                why
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map(
              ({ point, lot }) =>
                lot && (
                  <tr key={lot.id} className="border-b border-hair">
                    <td className="py-1 pr-3 whitespace-nowrap">
                      <button
                        type="button"
                        className="link font-semibold"
                        onClick={() => onLot(lot.id)}
                      >
                        {lot.code}
                      </button>
                    </td>
                    <td className="pr-3 whitespace-nowrap">
                      {format.date(lot.received_at.slice(0, 10))}
                    </td>
                    <td className="text-right">
                      {format.plain(Number(point.value.toPrecision(4)))}
                    </td>
                    <td className="pl-4 text-sm">
                      {[
                        point.beyond && "beyond three sigma",
                        point.run && "in a run on one side",
                        point.drifting && "the average drifts",
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </td>
                  </tr>
                ),
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** The same property of every flour, mill beside mill. */
function Beside({
  flours,
  flour,
  property,
}: {
  flours: Schemas["FlourView"][];
  flour: Schemas["FlourView"] | undefined;
  property: Charted;
}) {
  const format = useFormat();
  const { search } = useScenario();
  const navigate = useNavigate();
  const views = useQueries({
    queries: flours.map((one) => ({
      queryKey: ["drift", one.id, property, null, null],
      queryFn: () => drift(one.id, property, null, null),
    })),
  });
  return (
    <section aria-labelledby="beside">
      <h2 id="beside">Mills and flours side by side</h2>
      <div className="overflow-x-auto">
        <table className="mt-1 w-full">
          <thead>
            <tr className="border-b border-ink">
              <th scope="col">flour</th>
              <th scope="col">mill</th>
              <th scope="col" className="text-right">
                lots
              </th>
              <th scope="col" className="text-right">
                centre
              </th>
              <th scope="col" className="text-right">
                σ
              </th>
              <th scope="col" className="text-right">
                out of control
              </th>
            </tr>
          </thead>
          <tbody>
            {flours.map((one, at) => {
              const chart = views[at]?.data?.drift;
              if (!chart) return null;
              return (
                <tr
                  key={one.id}
                  className={`border-b border-hair ${one.id === flour?.id ? "font-semibold" : ""}`}
                >
                  <td className="py-1">
                    <button
                      type="button"
                      className="link"
                      onClick={() =>
                        void navigate({ pathname: `/flour/control-chart/${one.id}`, search })
                      }
                    >
                      {one.name}
                    </button>
                  </td>
                  <td>{one.mill}</td>
                  <td className="text-right">{chart.points.length}</td>
                  <td className="text-right">
                    {format.plain(Number(chart.centre.toPrecision(3)))}
                  </td>
                  <td className="text-right">{format.plain(Number(chart.sigma.toPrecision(2)))}</td>
                  <td className="text-right">
                    {chart.points.filter((point) => point.beyond).length}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
