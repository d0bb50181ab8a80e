import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, Refused, type Schemas } from "../api/client";
import { DayClock } from "../figures/DayClock";
import { NoHand } from "../shell/NoHand";
import { Refusal } from "../shell/Refusal";
import { useHeld } from "../shell/useHeld";
import { useFormat } from "../units/format";
import { dayInput, keepDay, keptDay, minutesOf, type DayAsked } from "./day";
import { MethodTabs } from "./MethodTabs";

/** The dough in hand on the clock, around the hours nobody is there. */
export function DayPage() {
  const { product, input } = useHeld();
  const format = useFormat();
  const [now] = useState(() => new Date());
  const [day, setDay] = useState(() => keptDay(now));
  const set = (change: Partial<DayAsked>) => {
    const next = { ...day, ...change };
    setDay(next);
    keepDay(next);
  };
  const body = input && day.at ? { hand: input, day: dayInput(day, now) } : null;
  const asked = useQuery({
    queryKey: ["day", body],
    enabled: body !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => {
      if (!body) throw new Error("asked without a dough in hand");
      return answer(api.POST("/api/v1/chain/day", { body, signal }));
    },
  });
  if (!product || !body)
    return (
      <>
        <MethodTabs />
        <NoHand link="method" />
      </>
    );
  const refused = asked.error instanceof Refused ? asked.error : undefined;
  const found = refused ? undefined : asked.data;
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div className="max-w-80">
          <h1>The day</h1>
          <p className="text-sm text-iron">
            {product.name}, {product.method.process_label}
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
              <span className="block text-sm">out of the oven</span>
            </p>
          </>
        )}
      </div>
      <Asked day={day} set={set} refused={refused} />
      {found && (
        <>
          {found.plan.says && (
            <p className="mt-4 border-l-4 border-water bg-faint px-3 py-2">
              Fitted around the refused hours: {found.plan.says}. Look whether it still has strength
              before it goes on.
            </p>
          )}
          {found.plan.moved_min > 0 && (
            <p className="mt-3 text-sm text-iron">
              {format.minutes(found.plan.moved_min)}{" "}
              {day.by === "from" ? "later than asked" : "before it was asked for"}, to keep clear of
              the hours nobody is there.
            </p>
          )}
          <div className="mt-4">
            <DayClock
              plan={found.plan}
              rise={found.rise}
              mixesH={found.mixes_h}
              refused={day.refused.flatMap(({ from, to }) => {
                const [begins, ends] = [minutesOf(from), minutesOf(to)];
                return begins === null || ends === null ? [] : [{ from: begins, to: ends }];
              })}
            />
          </div>
          <Stages stages={found.plan.stages} />
          <p className="screen-only mt-4 flex gap-3">
            <button type="button" className="act" onClick={() => window.print()}>
              Print
            </button>
            <SaveCalendar body={body} />
          </p>
          <p className="mt-3 max-w-prose text-sm text-iron">
            Minutes are where to begin looking; the dough decides. Eggs, milk and meat have their
            own limits out of the cold: your food-safety plan goes before this one.
          </p>
        </>
      )}
    </>
  );
}

interface AskedProps {
  day: DayAsked;
  set: (change: Partial<DayAsked>) => void;
  refused: Refused | undefined;
}

/** When it is wanted, and the hours nobody is there. */
function Asked({ day, set, refused }: AskedProps) {
  const setHours = (at: number, change: Partial<DayAsked["refused"][number]>) =>
    set({ refused: day.refused.map((one, i) => (i === at ? { ...one, ...change } : one)) });
  return (
    <div className="screen-only mt-4 flex flex-wrap items-start gap-x-10 gap-y-3">
      <div className="flex items-end gap-3">
        <label className="text-sm text-iron">
          Plan
          <select
            aria-label="Plan by"
            className="field text-ink"
            value={day.by}
            onChange={(event) => set({ by: event.target.value as DayAsked["by"] })}
          >
            <option value="out_by">out of the oven by</option>
            <option value="from">beginning not before</option>
          </select>
        </label>
        <label className="text-sm text-iron">
          When
          <input
            type="datetime-local"
            aria-label="When"
            className="field text-ink"
            value={day.at}
            onChange={(event) => set({ at: event.target.value })}
          />
        </label>
      </div>
      <fieldset className="text-sm">
        <legend className="text-iron">Nobody is there</legend>
        {day.refused.map((hours, at) => (
          <div key={at} className="flex items-center gap-2">
            {(["from", "to"] as const).map((end) => (
              <label key={end} className="flex items-center gap-2">
                {end}
                <input
                  aria-label={`Nobody is there, ${end}, ${at + 1}`}
                  className="field w-16"
                  value={hours[end]}
                  aria-invalid={refused?.at(`day.refused[${at}].${end}`) ? true : undefined}
                  onChange={(event) => setHours(at, { [end]: event.target.value })}
                />
              </label>
            ))}
            <button
              type="button"
              className="px-1 text-lg text-iron hover:text-stop"
              aria-label={`Somebody is there after all, ${at + 1}`}
              onClick={() => set({ refused: day.refused.filter((_, i) => i !== at) })}
            >
              ×
            </button>
          </div>
        ))}
        <button
          type="button"
          className="link"
          onClick={() => set({ refused: [...day.refused, { from: "12:00", to: "13:00" }] })}
        >
          More hours
        </button>
      </fieldset>
      <Refusal error={refused} />
    </div>
  );
}

function Stages({ stages }: { stages: Schemas["PlannedStage"][] }) {
  const format = useFormat();
  return (
    <table className="mt-4 w-full">
      <caption className="sr-only">The stages with their hours</caption>
      <thead>
        <tr className="border-b border-ink">
          {["begins", "for", "stage", "ends when"].map((word) => (
            <th scope="col" key={word} className="py-1 pr-6">
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {stages.map((stage) => (
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
            </td>
            <td className="text-sm text-iron">{stage.ends_when}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The plan as a calendar file with a reminder before each stage that needs somebody. */
function SaveCalendar({
  body,
}: {
  body: { hand: Schemas["HandInput"]; day: Schemas["DayInput"] };
}) {
  const [failed, fail] = useState(false);
  const save = async () => {
    const response = await fetch("/api/v1/chain/day/calendar", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => null);
    fail(!response?.ok);
    if (!response?.ok) return;
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await response.blob());
    link.download = "dough.ics";
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <>
      <button type="button" className="act" onClick={() => void save()}>
        Save as a calendar
      </button>
      {failed && <span className="text-stop">The calendar could not be had; try again.</span>}
    </>
  );
}
