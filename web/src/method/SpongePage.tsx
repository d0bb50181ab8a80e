import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { useFormula } from "../dough/useFormula";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useScenarioContext } from "../shell/useScenarioContext";
import { ChainDerivation } from "../shell/Derivation";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { Conditioners } from "./Conditioners";
import { maturityWords } from "../figures/maturityWords";
import { MethodTabs } from "./MethodTabs";
import { useGuide, useMethod } from "./useMethod";

type Sponge = Schemas["SpongeView"];

/** The sponge of the selected product, and what is wanted of it. */
function useSponge(wanted: Omit<Schemas["SpongeAsked"], "scenario">) {
  const { input } = useScenarioContext();
  const body = input && { scenario: input, ...wanted };
  return useQuery({
    queryKey: ["sponge", body],
    enabled: body !== null,
    placeholderData: lastOfSameDough(body),
    queryFn: ({ signal }) => {
      if (!body) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/sponge", { body, signal }));
    },
  });
}

/** The sponge of the selected product, its numbers solved from one another. */
export function SpongePage() {
  const { product } = useScenarioContext();
  const { data } = useSponge({});
  if (!product || !data)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  const { sponge } = data;
  return (
    <>
      <MethodTabs />
      {sponge ? (
        <>
          <Head sponge={sponge} />
          <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-2">
            <div className="space-y-7">
              <Numbers sponge={sponge} />
              <AnotherEnd />
            </div>
            <div className="space-y-7">
              <DoughStage sponge={sponge} />
              <ShortenSponge sponge={sponge} />
              <Conditioners needs={sponge.conditioning} />
            </div>
          </div>
        </>
      ) : (
        <>
          <h1>Sponge</h1>
          <p className="mt-2 max-w-prose">
            {product.name} has no sponge. Under Straight or sponge it stands beside the same dough
            made with one; or give its formula a sponge under Dough and its method a stage for it
            under Stages.
          </p>
        </>
      )}
    </>
  );
}

function Head({ sponge }: { sponge: Sponge }) {
  const format = useFormat();
  return (
    <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
      <h1>Sponge</h1>
      <p>
        <ChainDerivation link="sponge" of="end of the sponge">
          <span className="figure text-5xl text-moss">{format.temperature(sponge.end_c)}</span>
        </ChainDerivation>
        <span className="block text-sm">
          after {format.minutes(sponge.hours * 60)}, set at {format.temperature(sponge.set_c)}
        </span>
      </p>
      <p className="text-sm">
        <span className="figure block text-2xl">+{format.number(sponge.end_rise_pct, 0)} %</span>
        risen when it goes into the dough
      </p>
      <p className="text-sm">
        <span className="figure block text-2xl">{format.mass(sponge.kg)}</span>
        {sponge.troughs === 1
          ? "in one trough"
          : `in ${sponge.troughs} troughs of ${format.mass(sponge.per_trough_kg)}`}
      </p>
      <p className="max-w-72 text-sm text-iron">
        {sponge.ripe_low_h != null && sponge.ripe_high_h != null && (
          <b className="block text-ink">
            Ripe {format.about({ low: sponge.ripe_low_h * 60, high: sponge.ripe_high_h * 60 })}{" "}
            after it is set
          </b>
        )}
        Its dough meets the oven at {maturityWords(sponge.maturity, format)}. Ripe when it pulls
        apart and drops at a tap. Stop early rather than late.
      </p>
    </div>
  );
}

/** Sponge parameters, each to be changed; what they make of it moves at once. */
function Numbers({ sponge }: { sponge: Sponge }) {
  const { usual } = sponge;
  const { parts, set } = useFormula();
  const { method, set: setMethod, setStages } = useMethod();
  const guide = useGuide();
  const { chain, product, refused } = useScenarioContext();
  const format = useFormat();
  const heat = chain?.preparations.find((one) => one.kind === "sponge");
  const water =
    heat &&
    (heat.ice_kg > 0
      ? `${format.mass(heat.ice_kg)} of its water as ice`
      : `its water ${format.temperature(heat.water_c)}`);
  const at = guide?.usual.findIndex((one) => one.role === "sponge") ?? -1;
  const setPart = (change: Partial<Schemas["PreparationInput"]>) =>
    set(({ parts }) => ({
      parts: parts.map((part) => (part.kind === "sponge" ? { ...part, ...change } : part)),
    }));
  const setStage = (change: Partial<Schemas["StageInput"]>) =>
    setStages((stages) => stages.map((stage, i) => (i === at ? { ...stage, ...change } : stage)));
  const part = parts.findIndex((one) => one.kind === "sponge");
  return (
    <section aria-labelledby="numbers">
      <h2 id="numbers">Sponge parameters</h2>
      <div className="mt-1 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
        <NumberField
          label="Flour in it, of all"
          kind="percent"
          value={sponge.flour_pct}
          onSet={(value) => setPart({ flour_pct: value ?? usual.flour_pct.typical })}
          fault={refused?.at(`parts[${part}].flour_pct`)}
          hint={`${format.mass(sponge.flour_kg)}; ${format.plain(usual.flour_pct.low)} to ${format.percent(usual.flour_pct.high, 0)}`}
        />
        <NumberField
          label="Water in it, on all flour"
          kind="percent"
          value={sponge.water_pct}
          onSet={(value) => setPart({ water_pct: value ?? usual.water_pct.typical })}
          fault={refused?.at(`parts[${part}].water_pct`)}
          hint={`${format.mass(sponge.water_kg)}, ${format.percent(sponge.hydration_pct, 0)} of its own flour`}
        />
        <div>
          <p className="text-sm text-iron">Yeast, as instant</p>
          <p className="py-1">{format.share(sponge.yeast_idy_pct)}</p>
          <p className="text-sm text-iron">of its own flour; in the formula under Dough</p>
        </div>
        <NumberField
          label="Set at"
          kind="temperature"
          value={method?.sponge_c ?? null}
          usual={sponge.set_c}
          onSet={(value) => setMethod(() => ({ sponge_c: value ?? undefined }))}
          fault={refused?.at("now.method.sponge_c")}
          hint={`off the mixer; near ${format.temperature(usual.set_c.typical, 0)}${water ? `; ${water}` : ""}`}
        />
        <NumberField
          label="Time, h"
          kind="number"
          value={Number(sponge.hours.toFixed(3))}
          onSet={(value) => setStage({ minutes: Math.round((value ?? usual.hours.typical) * 60) })}
          fault={refused?.at(`now.method.stages[${at}].minutes`)}
          hint={`${format.plain(usual.hours.low)} to ${format.plain(usual.hours.high)}`}
        />
        <NumberField
          label="Room"
          kind="temperature"
          value={sponge.room_c}
          onSet={(value) => setStage({ temperature_c: value ?? undefined })}
          hint={`${format.percent(sponge.humidity_pct, 0)} humidity: no skin forms`}
        />
      </div>
      {product && (
        <p className="mt-2 text-sm text-iron">
          What is changed here is an edited formula and method: recorded under Dough and Stages.
        </p>
      )}
    </section>
  );
}

const UNKNOWNS = {
  set_temperature: "set it at",
  room: "in a room of",
  hours: "for",
  yeast: "with yeast of",
} as const satisfies Record<Schemas["SpongeUnknown"], string>;

/** To end at another temperature: each number that alone would do it. */
function AnotherEnd() {
  const format = useFormat();
  const [end, setEnd] = useState<number | null>(29);
  const { data, error } = useSponge(end === null ? {} : { end_c: end });
  const show = (one: Schemas["SpongeFound"]) => {
    if (one.value == null) return `does not do it: ${format.temperature(one.nearest_c)} at most`;
    if (one.unknown === "hours") return format.minutes(one.value * 60);
    if (one.unknown === "yeast") return `${format.share(one.value)} of its flour`;
    return format.temperature(one.value);
  };
  return (
    <section aria-labelledby="ends">
      <h2 id="ends">To end at another temperature</h2>
      <div className="mt-1 w-32">
        <NumberField
          label="End of the sponge"
          kind="temperature"
          value={end}
          onSet={setEnd}
          fault={error instanceof Refused ? error.at("end_c") : undefined}
        />
      </div>
      <dl className="mt-2">
        {data?.found.map((one) => (
          <div key={one.unknown} className="flex justify-between border-t border-hair py-1">
            <dt className="text-iron">{UNKNOWNS[one.unknown]}</dt>
            <dd className={one.value == null ? "text-sm text-iron" : "figure"}>{show(one)}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-sm text-iron">Any one of these alone, the others as they are.</p>
    </section>
  );
}

/** What is left for the dough stage, and its heat with a warm sponge. */
function DoughStage({ sponge }: { sponge: Sponge }) {
  const format = useFormat();
  const { set } = useFormula();
  const { scenario } = useScenario();
  const { heat } = sponge;
  return (
    <section aria-labelledby="dough-stage">
      <h2 id="dough-stage">The dough stage</h2>
      <p className="mt-1">
        {format.mass(sponge.dough_flour_kg)} flour and {format.mass(sponge.dough_water_kg)} water
        are left, and with the sponge at {format.temperature(sponge.end_c)} the water is{" "}
        <b className="figure text-water">
          {heat.ice_kg > 0
            ? `${format.mass(heat.ice_kg)} of it ice`
            : format.temperature(heat.water_c)}
        </b>{" "}
        for a dough at{" "}
        <b className={`figure ${heat.reachable ? "" : "text-stop"}`}>
          {format.temperature(heat.dough_c)}
        </b>
        .
      </p>
      {!heat.reachable && heat.reason && (
        <p className="mt-1 text-stop">
          The target cannot be reached: {format.text(heat.reason ?? "")}.
        </p>
      )}
      {sponge.is_stated_otherwise && (
        <p className="mt-1 text-sm text-iron">
          The formula states the sponge at {format.temperature(sponge.stated_c)}.{" "}
          <button
            type="button"
            className="link"
            onClick={() =>
              set(({ parts }) => ({
                parts: parts.map((part) =>
                  part.kind === "sponge"
                    ? { ...part, temperature_c: Number(sponge.end_c.toFixed(1)) }
                    : part,
                ),
              }))
            }
          >
            Take {format.temperature(sponge.end_c)} into it
          </button>
        </p>
      )}
      {scenario.target !== null && (
        <p className="mt-1 text-sm text-iron">
          The target was set by hand: {format.temperature(scenario.target)}.
        </p>
      )}
    </section>
  );
}

/** To have it ripe sooner. */
function ShortenSponge({ sponge }: { sponge: Sponge }) {
  const [acceleration, setSooner] = useState<number | null>(30);
  const { data, error } = useSponge(acceleration === null ? {} : { sooner_min: acceleration });
  return (
    <section aria-labelledby="sooner">
      <h2 id="sooner">Shorten the sponge</h2>
      <div className="mt-1 w-32">
        <NumberField
          label="Shorten by, min"
          kind="number"
          value={acceleration}
          onSet={setSooner}
          fault={error instanceof Refused ? error.at("sooner_min") : undefined}
        />
      </div>
      {data?.acceleration && <ShortenSpongeWays acceleration={data.acceleration} sponge={sponge} />}
    </section>
  );
}

/** Mixing first: what it brings, and what a hotter room would. */
function ShortenSpongeWays({
  acceleration,
  sponge,
}: {
  acceleration: Schemas["SpongeAcceleration"];
  sponge: Sponge;
}) {
  const format = useFormat();
  return (
    <dl className="mt-2">
      <div className="border-t border-hair py-1.5">
        <dt className="font-semibold">Mix the sponge longer</dt>
        <dd className="text-sm">
          <b className="figure">{format.number(acceleration.extra_min)} min</b> past{" "}
          <GlossaryTerm of="clean-up" />, likely {format.number(acceleration.extra_low_min)} or
          more; it is hydration that matures it. That puts{" "}
          {format.number(acceleration.extra_kj_per_kg)} kJ/kg into it and warms it by{" "}
          {format.apart(acceleration.warms_c)}, so its water is set for{" "}
          {format.temperature(acceleration.set_c)} to end as warm as now.
        </dd>
      </div>
      <div className="border-t border-hair py-1.5">
        <dt className="font-semibold">A hotter room</dt>
        <dd className="text-sm">
          {acceleration.room_c == null || acceleration.room_end_c == null ? (
            <>
              No room up to {format.temperature(sponge.usual.hottest_room_c, 0)} does it:{" "}
              {format.mass(sponge.per_trough_kg)} in a trough follows the room by hours.
            </>
          ) : (
            <>
              <b className="figure">{format.temperature(acceleration.room_c)}</b> around it; then
              the sponge comes at {format.temperature(acceleration.room_end_c)}
              {acceleration.room_more_ice_kg != null && acceleration.room_more_ice_kg > 0.05 && (
                <> and its dough wants {format.mass(acceleration.room_more_ice_kg)} more ice</>
              )}
              . It warms the sponge and matures it little.
            </>
          )}
        </dd>
      </div>
    </dl>
  );
}
