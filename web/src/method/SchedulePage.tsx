import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, Refused, type Schemas } from "../api/client";
import { lastOfSameDough } from "../scenario/sameDough";
import { useScenario } from "../scenario/ScenarioProvider";
import { useAddressed } from "../scenario/useAddressed";
import { ScheduleClock } from "../figures/ScheduleClock";
import { EmptyState } from "../shell/EmptyState";
import { useUndoStack } from "../scenario/undo";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { RefreshmentAndReserve } from "./RefreshmentAndReserve";
import { EarliestFit } from "./EarliestFit";
import { CalendarButton } from "./CalendarButton";
import { DAY_IN_ADDRESS, DAY_KEY, dayInput, keptDay, minutesOf } from "./schedule";
import { ClosedHours, WhenAsked } from "./PlanHours";
import { MethodTabs } from "./MethodTabs";
import { Portions } from "./Portions";
import { FrozenReserveForm, spareInput, type FrozenReserveQuery } from "./FrozenReserveForm";
import { useGuide } from "./useMethod";
import { Faults } from "../form/Faults";

/** The selected product on the clock, around the closed hours. */
export function SchedulePage() {
  const { process, product, input } = useScenarioContext();
  const { search } = useScenario();
  const format = useFormat();
  const [now] = useState(() => new Date());
  const [day, put] = useAddressed(DAY_KEY, DAY_IN_ADDRESS, keptDay);
  const [set] = useUndoStack(day, put);
  const [spare, setSpare] = useState<FrozenReserveQuery>();
  const guide = useGuide();
  // Pieces that lie in the cold can be frozen instead.
  const roles = guide?.usual.map((one) => one.role) ?? [];
  const hasBalls =
    roles.lastIndexOf("cold") > roles.indexOf("dividing") && roles.includes("dividing");
  const body = input && {
    scenario: input,
    day: dayInput(day, now),
    ...(hasBalls && spare && { spare: spareInput(spare) }),
  };
  const asked = useQuery({
    queryKey: ["day", body],
    enabled: body !== null,
    placeholderData: lastOfSameDough(body),
    queryFn: ({ signal }) => {
      if (!body) throw new Error("asked without a product");
      return answer(api.POST("/api/v1/chain/schedule", { body, signal }));
    },
  });
  if (!product || !body)
    return (
      <>
        <MethodTabs />
        <EmptyState link="method" />
      </>
    );
  const refused = asked.error instanceof Refused ? asked.error : undefined;
  const found = refused ? undefined : asked.data;
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div className="max-w-80">
          <h1>Schedule</h1>
          <p className="text-sm text-iron">
            {product.name}, {process}
          </p>
        </div>
        {found && (
          <>
            <p>
              <span className="figure text-4xl">{format.moment(found.plan.starts_at)}</span>
              <span className="block text-sm">begins</span>
            </p>
            <p>
              <span className="figure text-4xl">{format.moment(found.plan.out_at)}</span>
              <span className="block text-sm">
                out of the oven, {format.week(found.plan.out_at)}
              </span>
            </p>
          </>
        )}
      </div>
      <div className="screen-only mt-4 flex flex-wrap items-start gap-x-10 gap-y-3">
        <Faults error={refused}>
          <WhenAsked day={day} set={set} />
          <ClosedHours day={day} set={set} refused={refused} />
          {hasBalls && <FrozenReserveForm spare={spare} onSpare={setSpare} />}
        </Faults>
        {refused && day.by === "out_by" && (
          <EarliestFit
            asked={body}
            earliest={() => {
              const soonest = {
                ...body.day,
                anchor: { by: "from" as const, at: now.toISOString() },
              };
              const again = { scenario: body.scenario, day: soonest };
              return answer(api.POST("/api/v1/chain/schedule", { body: again })).then(
                ({ plan }) => plan.out_at,
              );
            }}
            onTake={(at) => set({ at })}
          />
        )}
      </div>
      {found && (
        <>
          {found.plan.message && (
            <p className="mt-4 border-l-4 border-water bg-faint px-3 py-2">
              Fitted around the closed hours: {format.text(found.plan.message)}. Look whether it
              still has strength before it goes on.
            </p>
          )}
          {found.plan.moved_min > 0 && (
            <p className="mt-3 text-sm text-iron">
              {format.minutes(found.plan.moved_min)}{" "}
              {day.by === "from" ? "later than asked" : "before it was asked for"}, to keep clear of
              the closed hours.
            </p>
          )}
          <div className="mt-4">
            <ScheduleClock
              plan={found.plan}
              rise={found.rise}
              mixesH={found.mixes_h}
              closed={day.closed_hours.flatMap(({ from, to }) => {
                const [begins, ends] = [minutesOf(from), minutesOf(to)];
                return begins === null || ends === null ? [] : [{ from: begins, to: ends }];
              })}
            />
          </div>
          <Stages stages={found.plan.stages} waits={found.waits_min} />
          <RefreshmentAndReserve feed={found.feed} spare={found.spare} />
          <p className="screen-only mt-4 flex gap-3">
            <button type="button" className="act" onClick={() => window.print()}>
              Print
            </button>
            <CalendarButton path="/api/v1/chain/schedule/calendar" body={body} />
            <Link className="act" to={{ pathname: "/method/production-run", search }}>
              Line stoppage
            </Link>
          </p>
          <p className="mt-3 max-w-prose text-sm text-iron">
            Minutes are where to begin looking; the dough decides. Eggs, milk and meat have their
            own limits out of the cold: your food-safety plan goes before this one.
          </p>
          <Portions
            key={product.slug}
            product={product.slug}
            scenario={body.scenario}
            plan={found.plan}
          />
        </>
      )}
    </>
  );
}

function Stages({ stages, waits }: { stages: Schemas["PlannedStage"][]; waits: number[] }) {
  const format = useFormat();
  return (
    <table className="mt-4 w-full">
      <caption className="sr-only">The stages with their hours</caption>
      <thead>
        <tr className="border-b border-ink">
          {["begins", "for", "stage", "ends when", "can wait"].map((word) => (
            <th scope="col" key={word} className="py-1 pr-6">
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {stages.map((stage, at) => (
          <tr key={stage.starts_at + stage.label} className="border-b border-hair">
            <td className="figure py-1 pr-6 whitespace-nowrap">{format.moment(stage.starts_at)}</td>
            <td className="pr-6 whitespace-nowrap">
              {format.minutes((Date.parse(stage.ends_at) - Date.parse(stage.starts_at)) / 60_000)}
            </td>
            <td className="pr-6">
              <b>{stage.label}</b>
              {stage.ambient_c != null && `, ${format.temperature(stage.ambient_c, 0)}`}
              {stage.added && <span className="text-sm text-water"> · put in</span>}
              {!stage.added && stage.stretched_min !== 0 && (
                <span className="text-sm text-water">
                  {" "}
                  · {stage.stretched_min > 0 ? "+" : "−"}
                  {format.minutes(Math.abs(stage.stretched_min))}
                </span>
              )}
              {stage.folds.length > 1 && (
                <span className="block text-sm text-iron">
                  at {stage.folds.map((set) => format.time(set.starts_at)).join(", ")}
                </span>
              )}
            </td>
            <td className="pr-6 text-sm text-iron">{format.text(stage.ends_when)}</td>
            <td className="text-sm whitespace-nowrap text-water">
              {(waits[at] ?? 0) >= 5 && format.minutes(waits[at] ?? 0)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
