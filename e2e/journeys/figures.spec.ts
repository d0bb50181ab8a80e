import { expect, test } from "@playwright/test";
import { withLine } from "../../web/src/dough/formula";
import { spread, thinned } from "../../web/src/figures/scale";
import { Format } from "../../web/src/units/format";
import type { Preferences } from "../../web/src/units/preferences";

const USUAL: Preferences = {
  temperature: "C",
  mass: "kg",
  mark: ".",
  more: 0,
  clock: "24",
  keys: "on",
  theme: "day",
};
const metric = new Format(USUAL);
const pounds = new Format({ ...USUAL, temperature: "F", mass: "lb", mark: "," });
const more = new Format({ ...USUAL, more: 1 });

test("numbers are written as one person reads them", () => {
  expect(metric.number(61.84)).toBe("61.8");
  expect(pounds.number(61.84)).toBe("61,8");
  expect(more.number(61.84)).toBe("61.84");
  expect(more.number(61.84, 0)).toBe("62");
  expect(metric.number(-0.04)).toBe("0.0");
  expect(metric.number(-3.26)).toBe("−3.3");
  expect(metric.number(12500.5)).toBe("12\u202f500.5");
  expect(metric.signed(1.25, 2)).toBe("+1.25");
  expect(metric.signed(0.001, 2)).toBe("0.00");
  expect(metric.signed(-2)).toBe("−2.0");
  expect(metric.plain(1.9)).toBe("1.9");
  expect(pounds.plain(-1.95)).toBe("−1,95");
  expect(metric.percent(61.84)).toBe("61.8 %");
  expect(metric.share(1.9)).toBe("1.90 %");
  expect(metric.share(0.0075)).toBe("0.0075 %");
  expect(metric.share(0)).toBe("0.00 %");
});

test("temperatures, and differences of them, are each in their unit", () => {
  expect(metric.temperature(27)).toBe("27.0 °C");
  expect(pounds.temperature(27)).toBe("80,6 °F");
  expect(pounds.degrees(5)).toBe("+9,0 °F");
  expect(metric.degrees(-1.5)).toBe("−1.5 °C");
  expect(pounds.figure(27, "°C")).toBe("80,6 °F");
  expect(pounds.figure(5, "°C", true)).toBe("+9,0 °F");
});

test("masses are written to the division of their scale", () => {
  expect(metric.mass(160, 0.01)).toBe("160.00 kg");
  expect(metric.mass(0.224, 0.001)).toBe("224 g");
  expect(metric.mass(0.0085, 0.0001)).toBe("8.5 g");
  expect(metric.mass(0.224, 0.05)).toBe("0.22 kg");
  expect(pounds.mass(0.224, 0.001)).toBe("7,90 oz");
  expect(pounds.mass(160)).toBe("352,74 lb");
  expect(pounds.figure(2, "kg", true)).toBe("+4,41 lb");
  expect(metric.figure(2.5, "points", true)).toBe("+2.50 points");
  expect(metric.figure(3, "")).toBe("3.00");
});

test("minutes become hours where they are many", () => {
  expect(metric.minutes(8)).toBe("8 min");
  expect(metric.minutes(12.25)).toBe("12.3 min");
  expect(metric.minutes(60)).toBe("1 h 00");
  expect(metric.minutes(426.6)).toBe("7 h 07");
});

test("a line is set, added or dropped without touching another", () => {
  const lines = [
    { ingredient: "flour", pct: 100 },
    { ingredient: "salt", pct: 2 },
  ];
  expect(withLine(lines, "salt", 1.8)).toEqual([lines[0], { ingredient: "salt", pct: 1.8 }]);
  expect(withLine(lines, "fat", 3)).toEqual([...lines, { ingredient: "fat", pct: 3 }]);
  expect(withLine(lines, "salt", null)).toEqual([lines[0]]);
  expect(withLine(lines, "sugar", null)).toEqual(lines);
});

test("a scale holds all its values with room, and a long series is thinned to its ends", () => {
  const [low, high] = spread([60, 64], 0.1);
  expect([low, high].map((edge) => Number(edge.toFixed(6)))).toEqual([59.6, 64.4]);
  expect(spread([5, 5])[0]).toBeLessThan(5);
  expect(spread([0, 0])[1]).toBeGreaterThan(0);
  const series = Array.from({ length: 1000 }, (_, at) => at);
  const few = thinned(series, 100);
  expect(few.length).toBeLessThanOrEqual(101);
  expect([few[0], few.at(-1)]).toEqual([0, 999]);
  expect(thinned([1, 2, 3], 10)).toEqual([1, 2, 3]);
});
