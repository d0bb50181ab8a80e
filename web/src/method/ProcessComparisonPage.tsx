import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { answer, api, type Schemas } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { ProcessComparisonFigure } from "../figures/ProcessComparisonFigure";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../form/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { CompareTable } from "../table/CompareTable";
import { useFormat, type Format } from "../units/format";
import { maturityWords } from "../figures/maturityWords";
import { asDraft } from "../scenario/documents";
import { MethodTabs } from "./MethodTabs";

type Way = Schemas["ProcessOutcome"];

/** One product and lot both ways, side by side. */
export function ProcessComparisonPage() {
  const { product, lot, input } = useScenarioContext();
  const { editMethod } = useScenario();
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ["straight or sponge", input],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/process-comparison", { body: input, signal }));
    },
  });
  if (!product || (!data && !error))
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  return (
    <>
      <MethodTabs />
      <h1>Straight or sponge</h1>
      <p className="text-sm text-iron">
        {product.name} from {lot?.code}, with the yeast for the same rise at the oven
      </p>
      <Refusal error={error} />
      {data && (
        <>
          <div className="mt-4">
            <ProcessComparisonFigure own={data.own} other={data.other} />
          </div>
          <CompareTable
            caption="Straight and sponge compared"
            heads={[
              { key: "own", head: `${data.own.label}, as it is made` },
              { key: "other", head: data.other.label },
            ]}
            groups={[
              {
                rows: ROWS.map(([label, show]) => ({
                  key: label,
                  label,
                  prose: true,
                  cells: [show(data.own, format), show(data.other, format)],
                })),
              },
            ]}
          />
          <Asks asks={data.asks} way={data.other} />
          <p className="screen-only mt-4 flex gap-3">
            <button
              type="button"
              className="act"
              onClick={() => editMethod(asDraft(data.other_method))}
            >
              Use its stages
            </button>
            <button type="button" className="act" onClick={() => window.print()}>
              Print
            </button>
          </p>
        </>
      )}
    </>
  );
}

const needs = (way: Way) =>
  way.conditioning
    .filter((one) => one.need !== "none")
    .map((one) => `${one.help}: ${one.need}`)
    .join("; ") || "none needed";

const ROWS: readonly (readonly [string, (way: Way, format: Format) => ReactNode])[] = [
  ["Water the dough takes", (way, format) => format.percent(way.dough_absorption_pct)],
  [
    "Yield from 100 kg of flour",
    (way, format) => `${format.mass(way.dough_yield)}, ${format.number(way.pieces, 0)} pieces`,
  ],
  [
    "Mixing",
    (way, format) =>
      `${format.number(way.mixing_kj_per_kg)} kJ/kg in ${format.minutes(way.mixing_min)}`,
  ],
  [
    "Dough temperature",
    (way, format) => (
      <>
        {way.ice_kg > 0
          ? `${format.mass(way.ice_kg)} ice in each dough`
          : `water at ${format.temperature(way.water_c)}`}
        {way.reachable ? (
          `, ${format.temperature(way.dough_c)} off the mixer`
        ) : (
          <b className="text-stop">, and still {format.temperature(way.dough_c)} off the mixer</b>
        )}
      </>
    ),
  ],
  [
    "Yeast, as instant",
    (way, format) =>
      way.yeast_idy_pct == null ? "no dose gives the same rise" : format.share(way.yeast_idy_pct),
  ],
  [
    "Maturity at the oven",
    (way, format) => (way.maturity ? maturityWords(way.maturity, format) : "nothing makes gas"),
  ],
  ["Conditioners", needs],
  ["Process time to out of the oven", (way, format) => format.minutes(way.hours * 60)],
  [
    "Troughs in use, and their floor",
    (way, format) => `${way.troughs}, ${format.number(way.floor_m2)} m²`,
  ],
  ["Manual steps", (way) => String(way.labour_steps)],
  ["Batch interval", (way, format) => format.minutes(way.cadence_min)],
  ["A thousand pieces cost", (way, format) => format.money(way.cost_per_thousand)],
  ["Flavour", (way) => way.flavour],
  ["Keeping", (way) => way.keeping],
  ["Tolerance", (way) => way.tolerance],
];

const PROPERTIES: Partial<Record<Schemas["Property"], [string, string]>> = {
  w: ["W", "10⁻⁴ J"],
  stability: ["stability", "min"],
  protein: ["protein on 14 %", "%"],
  falling_number: ["falling number", "s"],
};

/** What must change in the flour for the other way to work. */
function Asks({ asks, way }: { asks: Schemas["FlourRequirement"][]; way: Way }) {
  const format = useFormat();
  return (
    <section aria-labelledby="asks" className="mt-5">
      <h2 id="asks">What a {way.label} asks of the flour</h2>
      <ul>
        {asks.map((ask) => {
          const [name, unit] = PROPERTIES[ask.property] ?? [ask.property, ""];
          return (
            <li key={ask.property} className="border-t border-hair py-1">
              <b className={ask.met === false ? "text-stop" : ""}>
                {name} at least {format.number(ask.wants.typical, 0)} {unit}
              </b>
              <span className="text-sm text-iron">
                {" "}
                ({format.number(ask.wants.low, 0)} to {format.number(ask.wants.high, 0)}, house
                judgement): {ask.message}.{" "}
              </span>
              {ask.has == null
                ? "This lot does not state it."
                : ask.met
                  ? `This lot has ${format.number(ask.has)}: it will do.`
                  : `This lot has ${format.number(ask.has)}: another lot or a blend first.`}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
