import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { RefreshmentFigure } from "../figures/RefreshmentFigure";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { DateTimeField } from "../form/DateTimeField";
import { NumberField } from "../form/NumberField";
import { fieldOf, momentOf } from "../units/clock";
import { MethodTabs } from "./MethodTabs";
import { Faults } from "../form/Faults";

interface Asked {
  grams: number;
  hydration: number;
  stiffness: number;
  ambient: number;
  activity: number;
  feedAt: string;
  /** When it is to be ripe; by its own time if none. */
  ripeAt: string;
  parts: number;
}

const KEY = "ironpeel.starter";
const HOUR_MS = 3_600_000;

const begin = (kept?: Partial<Asked>): Asked => {
  const now = new Date();
  return {
    grams: 300,
    hydration: 100,
    stiffness: 100,
    ambient: 22,
    activity: 1,
    parts: 1,
    ...kept,
    // The hours were of that day.
    feedAt: fieldOf(now),
    ripeAt: fieldOf(new Date(now.getTime() + 10 * HOUR_MS)),
  };
};

/** A starter's refreshment: how much of what to feed it, to have it ripe at an hour. */
export function StarterPage() {
  const format = useFormat();
  const [asked, set] = useKept(KEY, begin);
  const hours = asked.ripeAt
    ? (momentOf(asked.ripeAt).getTime() - momentOf(asked.feedAt).getTime()) / HOUR_MS
    : null;
  const body: Schemas["RefreshmentInput"] = {
    grams: asked.grams,
    starter_hydration_pct: asked.hydration,
    flour_parts: asked.parts,
    feed_hydration_pct: asked.stiffness,
    ambient_c: asked.ambient,
    activity: asked.activity,
    ...(hours !== null && { ripe_in_h: hours }),
  };
  const { data, error } = useQuery({
    queryKey: ["starter feed", body],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => answer(api.POST("/api/v1/calc/starter-feed", { body, signal })),
  });
  const at = (h: number | null | undefined) =>
    h == null
      ? "not within a week"
      : format.moment(new Date(momentOf(asked.feedAt).getTime() + h * HOUR_MS).toISOString());
  return (
    <>
      <MethodTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <h1>Starter</h1>
        {data && (
          <p>
            <span className="figure text-4xl text-moss">
              {format.number(data.starter_g, 0)} g + {format.number(data.flour_g, 0)} g +{" "}
              {format.number(data.water_g, 0)} g
            </span>
            <span className="block text-sm">
              old starter, flour and water: 1 to {format.number(data.flour_parts)} to{" "}
              {format.number(data.water_parts)}
            </span>
          </p>
        )}
        {data && (
          <p className="text-sm">
            <span className="figure block text-2xl">{at(data.ripe_h)}</span>
            {data.ripe_h == null
              ? "ripe: warm it, or feed it less"
              : `ripe, and at its best until ${at(data.tired_h)}`}
          </p>
        )}
      </div>
      {data && !data.reachable && (
        <p className="mt-3 border-l-4 border-crust bg-faint px-3 py-2">
          No feed is ripe just then: this is the nearest. A cooler place makes it later, a warmer
          one sooner.
        </p>
      )}
      <Faults error={error}>
        <div className="mt-5 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
          <DateTimeField label="Fed at" value={asked.feedAt} onSet={(feedAt) => set({ feedAt })} />
          <DateTimeField
            label="Ripe at"
            optional
            value={asked.ripeAt}
            onSet={(ripeAt) => set({ ripeAt })}
            field="ripe_in_h"
            hint="left empty: by its parts"
          />
          <NumberField
            label="Fed starter wanted, g"
            kind="number"
            value={asked.grams}
            onSet={(value) => set({ grams: value ?? 300 })}
            field="grams"
          />
          <NumberField
            label="Ambient"
            kind="temperature"
            value={asked.ambient}
            onSet={(value) => set({ ambient: value ?? 22 })}
            field="ambient_c"
          />
          <NumberField
            label="Flour per part of old starter"
            kind="number"
            value={hours === null ? asked.parts : data ? Number(data.flour_parts.toFixed(2)) : null}
            onSet={(value) => set({ parts: value ?? 1, ripeAt: "" })}
            field="flour_parts"
            hint={hours === null ? undefined : "found for the hour"}
          />
          <NumberField
            label="Water on new flour"
            kind="percent"
            value={asked.stiffness}
            onSet={(value) => set({ stiffness: value ?? 100 })}
            field={["feed_hydration_pct", "water_parts"]}
          />
          <NumberField
            label="Hydration of old starter"
            kind="percent"
            value={asked.hydration}
            onSet={(value) => set({ hydration: value ?? 100 })}
            field="starter_hydration_pct"
          />
          <NumberField
            label="Activity, of a usual starter"
            kind="number"
            value={asked.activity}
            onSet={(value) => set({ activity: value ?? 1 })}
            field="activity"
          />
        </div>
        {data && (
          <>
            <div className="mt-5">
              <RefreshmentFigure feed={data} feedAt={asked.feedAt} />
            </div>
            <ul className="mt-4 max-w-prose list-disc pl-5">
              {data.looks.map((look) => (
                <li key={look}>{look}</li>
              ))}
            </ul>
            <p className="mt-2 max-w-prose text-sm text-iron">
              Feed it with a flour of some ash. Warm it wants one to one to one about every twelve
              hours; in the refrigerator a week. A plan by the house's model of a sour (H): the jar
              decides. Do not taste raw flour.
            </p>
          </>
        )}
      </Faults>
    </>
  );
}
