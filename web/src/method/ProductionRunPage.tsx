import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { useAddressed } from "../scenario/useAddressed";
import { RunChart } from "../figures/RunChart";
import { useScenario } from "../scenario/ScenarioProvider";
import { EmptyState } from "../shell/EmptyState";
import { GlossaryTerm } from "../shell/GlossaryTerm";
import { useUndoStack } from "../scenario/undo";
import { useScenarioContext } from "../shell/useScenarioContext";
import { momentOf } from "../units/clock";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { CadenceTable } from "./CadenceTable";
import { EarliestFit } from "./EarliestFit";
import { CalendarButton } from "./CalendarButton";
import { dayInput } from "./schedule";
import { ClosedHours, WhenAsked } from "./PlanHours";
import { DelayedBatches } from "./DelayedBatches";
import { MethodTabs } from "./MethodTabs";
import { RunTable } from "./RunTable";
import { keptRun, RUN_IN_ADDRESS, RUN_KEY, stopInput } from "./run";
import { StopForm } from "./StopForm";
import { Faults } from "../form/Faults";

/** A run of doughs on the clock at its line's cadence, the line standing still in it or not. */
export function ProductionRunPage() {
  const { product, input } = useScenarioContext();
  return (
    <>
      <MethodTabs />
      {product && input ? (
        <Run key={product.slug} product={product} scenario={input} />
      ) : (
        <EmptyState link="method" />
      )}
    </>
  );
}

interface Props {
  product: Schemas["ProductView"];
  scenario: Schemas["ScenarioInput"];
}

function Run({ product, scenario }: Props) {
  const format = useFormat();
  const { change } = useScenario();
  const { chain, process } = useScenarioContext();
  const [now] = useState(() => new Date());
  const [run, put] = useAddressed(RUN_KEY + product.slug, RUN_IN_ADDRESS, keptRun);
  const [set] = useUndoStack(run, put);
  const [chosen, choose] = useState<{ dough: number; stage: number } | null>(null);
  const body: Schemas["RunQuery"] = {
    scenario,
    day: dayInput(run, new Date(run.since)),
    shifts: run.shifts,
    dropped: run.dropped,
    ...(run.stop && { stop: stopInput(run.stop) }),
  };
  const asked = useQuery({
    queryKey: ["run", body],
    placeholderData: lastOfSameDough(body),
    queryFn: ({ signal }) => answer(api.POST("/api/v1/chain/production-run", { body, signal })),
  });
  const rise = useQuery({
    queryKey: ["rise", scenario],
    placeholderData: lastOfSameDough(scenario),
    queryFn: ({ signal }) =>
      answer(api.POST("/api/v1/chain/fermentation", { body: scenario, signal })),
  }).data;
  const refused = asked.error instanceof Refused ? asked.error : undefined;
  const found = refused ? undefined : asked.data;
  const plan = found?.plan;
  const shift = (dough: number, stage: number, by_min: number) => {
    set(({ shifts }) => {
      const others = shifts.filter((one) => one.dough !== dough || one.stage !== stage);
      const was = shifts.find((one) => one.dough === dough && one.stage === stage)?.by_min ?? 0;
      const by = was + by_min;
      return { shifts: by === 0 ? others : [...others, { dough, stage, by_min: by }] };
    });
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div className="max-w-80">
          <h1>Production run</h1>
          <p className="text-sm text-iron">
            {product.name}, {process}, {product.line.name}
          </p>
        </div>
        {plan && (
          <>
            <p>
              <span className="figure text-4xl">{format.moment(plan.starts_at)}</span>
              <span className="block text-sm">
                {format.count(plan.doughs.length, "dough begins", "doughs begin")},{" "}
                <GlossaryTerm of="batch interval">one every</GlossaryTerm>{" "}
                {format.minutes(plan.cadence.minutes)}
              </span>
            </p>
            <p>
              <span className="figure text-4xl">{format.moment(plan.out_at)}</span>
              <span className="block text-sm">
                all out of the oven, the first at {format.moment(plan.first_out_at)}
              </span>
            </p>
          </>
        )}
      </div>
      <Faults error={asked.error}>
        <div className="screen-only mt-4 flex flex-wrap items-start gap-x-10 gap-y-3">
          <WhenAsked day={run} set={(next) => set({ ...next, since: now.toISOString() })} />
          <NumberField
            className="w-20"
            label="Doughs"
            kind="number"
            value={chain?.dough?.doughs ?? null}
            onSet={(value) =>
              change({ amount: { by: "mixer", value: Math.max(1, Math.round(value ?? 1)) } })
            }
            field="scenario.run_settings.amount"
          />
          <ClosedHours day={run} set={set} refused={refused} />
          <StopForm
            stop={run.stop}
            onStop={(stop) => set({ stop, ...(!stop && { dropped: [] }) })}
          />
        </div>
      </Faults>
      {refused && run.by === "out_by" && (
        <EarliestFit
          asked={body}
          earliest={() => {
            const soonest = { ...body.day, anchor: { by: "from" as const, at: now.toISOString() } };
            const again = { scenario, day: { ...soonest, not_before: now.toISOString() } };
            return answer(api.POST("/api/v1/chain/production-run", { body: again })).then(
              (first) => first.plan.out_at,
            );
          }}
          onTake={(at) => set({ at, since: now.toISOString() })}
        />
      )}
      {plan && (
        <>
          {found.calm_out_at && (
            <p className="mt-3 border-l-4 border-stop bg-faint px-3 py-2">
              Line stoppage: the run is out{" "}
              {format.minutes((Date.parse(plan.out_at) - Date.parse(found.calm_out_at)) / 60_000)}{" "}
              later than it would be. What is set after it is planned anew.
            </p>
          )}
          {plan.moved_min > 0 && (
            <p className="mt-3 text-sm text-iron">
              {format.minutes(plan.moved_min)}{" "}
              {run.by === "from" ? "later than asked" : "before it was asked for"}, to keep clear of
              the closed hours.
            </p>
          )}
          <Cautions
            message={found.late.length > 0 ? plan.cautions : [...plan.cautions, ...plan.past]}
          />
          <div className="mt-4">
            <RunChart
              plan={plan}
              rise={rise}
              stop={
                run.stop && {
                  from: momentOf(run.stop.at).getTime(),
                  to: momentOf(run.stop.at).getTime() + run.stop.minutes * 60_000,
                }
              }
              now={now.getTime()}
              chosen={chosen}
              onChoose={(dough, stage) => choose({ dough, stage })}
            />
          </div>
          {found.late.length > 0 && (
            <DelayedBatches
              late={found.late}
              dropped={run.dropped}
              onDrop={(dough) => set(({ dropped }) => ({ dropped: [...dropped, dough] }))}
              onKeep={() => set({ dropped: [] })}
            />
          )}
          <div className="mt-6 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_24rem]">
            <RunTable
              plan={plan}
              chosen={chosen}
              onChoose={choose}
              onShift={shift}
              shifts={run.shifts}
              onCalm={() => set({ shifts: [] })}
            />
            <CadenceTable cadence={plan.cadence} fullest={plan.fullest} />
          </div>
          <p className="screen-only mt-4 flex gap-3">
            <button type="button" className="act" onClick={() => window.print()}>
              Print
            </button>
            <CalendarButton path="/api/v1/chain/production-run/calendar" body={body} />
          </p>
        </>
      )}
    </>
  );
}

function Cautions({ message }: { message: string[] }) {
  const format = useFormat();
  const [all, setAll] = useState(false);
  const shown = all ? message : message.slice(0, 3);
  if (message.length === 0) return null;
  return (
    <ul className="mt-3 border-l-4 border-crust bg-faint px-3 py-2 text-sm">
      {shown.map((one) => (
        <li key={one}>{format.text(one)}</li>
      ))}
      {message.length > shown.length && (
        <li>
          <button type="button" className="link" onClick={() => setAll(true)}>
            and {message.length - shown.length} more
          </button>
        </li>
      )}
    </ul>
  );
}
