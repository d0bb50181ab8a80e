import { afterEach, expect, test } from "vitest";
import { browserZone, fieldOf, momentOf, plantZone, setPlantWords } from "../src/units/clock";
import { Format } from "../src/units/format";
import { USUAL } from "../src/units/preferences";

const setPlantZone = (time_zone: string, change = {}) =>
  setPlantWords({
    time_zone,
    currency: "",
    week_starts: "monday",
    temperature_unit: "celsius",
    mass_unit: "kilogram",
    ...change,
  });

afterEach(() => setPlantZone(browserZone()));

test("hours are the plant's, wherever this browser is, and a date is a date everywhere", () => {
  const moment = "2026-11-26T02:30:00Z";
  for (const [zone, field, day, hour] of [
    ["America/New_York", "2026-11-25T21:30", "25 Nov 2026", "21:30"],
    ["Pacific/Kiritimati", "2026-11-26T16:30", "26 Nov 2026", "16:30"],
    ["Asia/Kolkata", "2026-11-26T08:00", "26 Nov 2026", "08:00"],
  ] as const) {
    setPlantZone(zone);
    const format = new Format(USUAL);
    expect(fieldOf(moment)).toBe(field);
    expect(momentOf(field).toISOString()).toBe("2026-11-26T02:30:00.000Z");
    expect(format.date(moment)).toBe(day);
    expect(format.time(moment)).toBe(hour);
    expect(format.date("2026-11-05"), zone).toBe("5 Nov 2026");
  }
});

test("an hour that a night skips or has twice is one that is there", () => {
  setPlantZone("Europe/London");
  expect(momentOf("2027-03-28T01:30").toISOString()).toBe("2027-03-28T01:30:00.000Z");
  expect(["00:30", "01:30"]).toContain(momentOf("2026-10-25T01:30").toISOString().slice(11, 16));
  expect(Number.isNaN(momentOf("half typ").getTime())).toBe(true);
});

test("a zone nobody knows changes nothing", () => {
  const was = plantZone();
  setPlantZone("Atlantis/Skerrow");
  expect(plantZone()).toBe(was);
});

test("weeks begin on the plant's day, money is in its currency, and the clock is a person's", () => {
  const sunday = "2026-11-29T12:00:00Z";
  setPlantZone("Europe/London", { currency: "EUR" });
  expect(new Format(USUAL).week(sunday)).toBe("week 48");
  expect(new Format(USUAL).money(12.5)).toBe("12.50 EUR");
  setPlantZone("Europe/London", { week_starts: "sunday" });
  expect(new Format(USUAL).week(sunday)).toBe("week 49");
  expect(new Format({ ...USUAL, mark: "," }).money(12.5)).toBe("12,50");
  expect(new Format({ ...USUAL, clock: "12" }).time("2026-11-29T17:30:00Z")).toMatch(/^5:30\spm$/);
  expect(new Format(USUAL).time("2026-11-29T00:05:00Z")).toBe("00:05");
});
