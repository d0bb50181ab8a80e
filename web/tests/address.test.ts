import { describe, expect, it } from "vitest";
import { TRIAL_IN_ADDRESS } from "../src/dough/trial";
import { BLEND_IN_ADDRESS } from "../src/flour/blend";
import { RUN_IN_ADDRESS } from "../src/method/run";
import { DAY_IN_ADDRESS } from "../src/method/schedule";
import type { InAddress } from "../src/scenario/useAddressed";

/** What comes of a value that is written to an address and read from it. */
function thereAndBack<T>({ read, write }: InAddress<T>, value: T) {
  const search = new URLSearchParams({ product: "ferry-tin-800" });
  for (const [key, text] of Object.entries(write(value))) if (text !== null) search.set(key, text);
  return read(new URLSearchParams(search.toString()));
}

describe("what a view is asked", () => {
  it("stands in the address as it was set", () => {
    const day = {
      by: "out_by" as const,
      at: "2026-11-27T05:00",
      closed_hours: [
        { from: "22:00", to: "4:00" },
        { from: "half, past", to: "" },
      ],
    };
    expect(thereAndBack(DAY_IN_ADDRESS, day)).toEqual(day);
    const run = {
      ...day,
      since: "2026-11-26T21:46:25.832Z",
      shifts: [
        { dough: 2, stage: 3, by_min: -15 },
        { dough: 4, stage: 0, by_min: 30 },
      ],
      stop: { at: "2026-11-27T01:20", minutes: 90, place: "mixer" as const },
      dropped: [5, 6],
    };
    expect(thereAndBack(RUN_IN_ADDRESS, run)).toEqual(run);
    expect(thereAndBack(RUN_IN_ADDRESS, { ...run, stop: undefined, dropped: [] })).toEqual({
      ...run,
      stop: undefined,
      dropped: [],
    });
    const trial = { goal: "open_crumb" as const, interventions: ["scald" as const], kg: 2.5 };
    expect(thereAndBack(TRIAL_IN_ADDRESS, trial)).toEqual(trial);
    const blend = {
      lots: [
        { lotId: "01a2", share: 62.5, price: null },
        { lotId: "01a3", share: 37.5, price: 430 },
      ],
      targets: { protein_14_pct: { min: "12,4", max: "" } },
    };
    expect(thereAndBack(BLEND_IN_ADDRESS, blend)).toEqual(blend);
    const mistyped = BLEND_IN_ADDRESS.read(new URLSearchParams("mix=one:much:dear"));
    expect(mistyped?.lots).toEqual([{ lotId: "one", share: 0, price: null }]);
  });

  it("is nothing where nothing of it stands there", () => {
    const search = new URLSearchParams("product=a&moved=x&day=whenever&run=,,");
    for (const codec of [DAY_IN_ADDRESS, RUN_IN_ADDRESS, TRIAL_IN_ADDRESS, BLEND_IN_ADDRESS])
      expect(codec.read(search)).toBeUndefined();
  });
});
