import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { FermentationFigure } from "../figures/FermentationFigure";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../form/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { ChainDerivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { ReadingsFit } from "./ReadingsFit";
import { DoughMaturity } from "./DoughMaturity";
import { MethodTabs } from "./MethodTabs";
import { StageEnds } from "./StageEnds";
import { TargetRise } from "./TargetRise";

/** How the selected product rises through its method, and the yeast for another rise or room. */
export function FermentationPage() {
  const { chain, process, product, input } = useScenarioContext();
  const format = useFormat();
  const { data: rise, error } = useQuery({
    queryKey: ["rise", input],
    enabled: input !== null,
    placeholderData: lastOfSameDough(input),
    queryFn: ({ signal }) => {
      if (!input) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/fermentation", { body: input, signal }));
    },
  });
  if (!product || !chain?.heat || !rise)
    return (
      <>
        <MethodTabs />
        {error ? (
          <>
            <h1>Fermentation</h1>
            <Refusal error={error} />
          </>
        ) : (
          <EmptyState link="method" />
        )}
      </>
    );
  const end = rise.stages.at(-1);
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div className="max-w-80">
          <h1>Fermentation</h1>
          <p className="text-sm text-iron">
            {product.name}, {process}
          </p>
        </div>
        {end && (
          <p>
            <ChainDerivation link="rise" of="rise">
              <span className="figure text-5xl text-moss">+{format.number(end.rise_pct, 0)} %</span>
            </ChainDerivation>
            <span className="block text-sm">
              where it meets the oven, {format.minutes(end.to_h * 60)} after the first mixing
            </span>
          </p>
        )}
        {rise.sponge && (
          <p className="text-sm">
            <span className="figure block text-2xl">{format.temperature(rise.sponge.end_c)}</span>
            the {rise.sponge.name} after {format.minutes(rise.sponge.hours * 60)}, set at{" "}
            {format.temperature(rise.sponge.set_c)}, +{format.number(rise.sponge.end_rise_pct, 0)} %
          </p>
        )}
        <p className="text-sm">
          <span className="figure block text-2xl">
            {rise.yeast_idy_pct > 0
              ? format.share(rise.yeast_idy_pct)
              : format.percent(rise.sour_pct)}
          </span>
          {rise.yeast_idy_pct > 0 ? "yeast, as instant" : "of the flour in the sour"}
        </p>
      </div>
      <div className="mt-5">
        <FermentationFigure series={rise.series} stages={rise.stages} />
      </div>
      <div className="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="space-y-8">
          <StageTable stages={rise.stages} />
          <StageEnds ends={rise.ends} />
          <DoughMaturity maturity={rise.maturity} />
        </div>
        <div className="space-y-6">
          <Jar marks={rise.jar} />
          <ReadingsFit key={product.slug} product={product.slug} />
          <TargetRise yeastPct={rise.yeast_idy_pct} sourPct={rise.sour_pct} />
          {rise.seasons.length > 0 && <Seasons rows={rise.seasons} />}
        </div>
      </div>
      <p className="mt-4 max-w-prose text-sm text-iron">
        A plan, not a promise: the model is the house's (H, shaped by published kinetics) until your
        own readings teach it. Decide by the dough.
        {rise.assumed.length > 0 &&
          ` The certificate does not state everything; taken as usual: ${rise.assumed.join(", ")}.`}
      </p>
    </>
  );
}

function StageTable({ stages }: { stages: Schemas["RiseStage"][] }) {
  const format = useFormat();
  return (
    <table className="w-full self-start">
      <caption className="sr-only">The dough at the end of each stage</caption>
      <thead>
        <tr className="border-b border-ink">
          {["stage, to its end", "at", "ambient", "dough", "rise", "sugar left"].map((word, at) => (
            <th scope="col" key={word} className={at === 0 ? "py-1" : "text-right"}>
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {stages.map((stage, at) => (
          <tr key={at} className="border-b border-hair">
            <th scope="row" className="py-1 text-base font-normal text-ink">
              {stage.label}
              {stage.misses && (
                <span className="block max-w-md text-sm text-crust">{stage.misses}</span>
              )}
            </th>
            <td className="text-right whitespace-nowrap">{format.minutes(stage.to_h * 60)}</td>
            <td className="text-right whitespace-nowrap text-iron">
              {stage.ambient_c === stage.ambient_end_c
                ? format.temperature(stage.ambient_c, 0)
                : `${format.temperature(stage.ambient_c, 0)} → ${format.temperature(stage.ambient_end_c, 0)}`}
            </td>
            <td className="text-right whitespace-nowrap">{format.temperature(stage.dough_c)}</td>
            <td className="figure text-right whitespace-nowrap">
              +{format.number(stage.rise_pct, 0)} %
            </td>
            <td className="text-right whitespace-nowrap text-iron">
              {format.percent(stage.sugar_pct, 2)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** When a sample jar will stand where. */
function Jar({ marks }: { marks: Schemas["RiseReached"][] }) {
  const format = useFormat();
  return (
    <section aria-labelledby="jar">
      <h2 id="jar">Sample jar times</h2>
      <dl className="mt-1 text-sm">
        {marks.map((mark) => (
          <div key={mark.rise_pct} className="flex justify-between border-t border-hair py-0.5">
            <dt className="text-iron">+{format.number(mark.rise_pct, 0)} %</dt>
            <dd className="figure">
              {mark.at_h == null ? "not before the oven" : format.minutes(mark.at_h * 60)}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-sm text-iron">
        From the first mixing, kept beside the dough and never folded. A jar of 100 g follows the
        room sooner than the bulk does: say which was read.
      </p>
    </section>
  );
}

/** The yeast for the same rise in other rooms. */
function Seasons({ rows }: { rows: Schemas["SeasonalYeast"][] }) {
  const format = useFormat();
  return (
    <section aria-labelledby="seasons">
      <h2 id="seasons">The same rise in another room</h2>
      <table className="mt-1 w-full text-sm">
        <caption className="sr-only">Instant yeast by ambient temperature</caption>
        <tbody>
          {rows.map((row) => (
            <tr key={row.room_c} className="border-t border-hair">
              <th scope="row" className="py-0.5 font-normal">
                {format.temperature(row.room_c, 0)}
              </th>
              <td className="figure text-right">
                {row.yeast_idy_pct == null ? "no dose does it" : format.share(row.yeast_idy_pct)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-iron">
        Instant yeast on flour. Refrigerator and proofer stay as they are.
      </p>
    </section>
  );
}
