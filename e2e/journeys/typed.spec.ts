import { expect, test } from "@playwright/test";
import { readScenario, writeScenario } from "../../web/src/scenario/scenario";
import { parseQuantity, type Kind } from "../../web/src/units/parse";

const METRIC = { temperature: "C", mass: "kg", mark: "." } as const;
const POUNDS = { temperature: "F", mass: "lb", mark: "." } as const;

function typed(text: string, kind: Kind, preferences: typeof METRIC | typeof POUNDS = METRIC) {
  const read = parseQuantity(text, kind, preferences);
  return "value" in read ? read.value : read.message;
}

test("quantities are understood as people type them", () => {
  for (const [text, kind, value] of [
    ["24", "temperature", 24],
    ["24 °C", "temperature", 24],
    ["24,5c", "temperature", 24.5],
    ["75 F", "temperature", 23.8888888889],
    ["-18", "temperature", -18],
    ["−18 °C", "temperature", -18],
    ["160", "mass", 160],
    ["160 kg", "mass", 160],
    ["850 g", "mass", 0.85],
    ["1.2 t", "mass", 1200],
    ["3 lb 4 oz", "mass", 1.4741752025],
    ["1 kg 250 g", "mass", 1.25],
    ["1 250 kg", "mass", 1250],
    ["58", "percent", 58],
    ["58,5 %", "percent", 58.5],
    ["4000", "number", 4000],
    ["90", "duration", 90],
    ["24 h", "duration", 1440],
    ["1 h 30", "duration", 90],
    ["1h30", "duration", 90],
    ["1:30", "duration", 90],
    ["1.5 hours", "duration", 90],
    ["1 h 05 min", "duration", 65],
    ["overnight", "duration", 720],
  ] as const) {
    expect(typed(text, kind), text).toBeCloseTo(value, 9);
  }
  expect(typed("75", "temperature", POUNDS)).toBeCloseTo(23.8888888889, 9);
  expect(typed("75 C", "temperature", POUNDS)).toBe(75);
  expect(typed("2", "mass", POUNDS)).toBeCloseTo(0.90718474, 9);
});

test("what is no quantity says what one is", () => {
  for (const [text, kind, message] of [
    ["warm", "temperature", "“warm” is not a temperature, such as 24 or 75 °F"],
    ["24 kg", "temperature", "“24 kg” is not a temperature, such as 24 or 75 °F"],
    ["3 cups", "mass", "“3 cups” is not a mass, such as 160 kg, 850 g or 3 lb 4 oz"],
    ["1.2.3", "percent", "“1.2.3” is not a percentage, such as 1.9"],
    ["about 5", "number", "“about 5” is not a number, such as 4000"],
    ["", "number", "“” is not a number, such as 4000"],
    ["30 1 h", "duration", "“30 1 h” is not a time, such as 90 min, 1 h 30 or overnight"],
    ["soon", "duration", "“soon” is not a time, such as 90 min, 1 h 30 or overnight"],
    ["5 %", "number", "“5 %” is not a number, such as 4000"],
  ] as const) {
    expect(typed(text, kind), text).toBe(message);
  }
});

test("the dough in hand comes back from its address as it was", () => {
  for (const search of [
    "product=deck-roll-60&lot=a1&mixer=1",
    "product=deck-roll-60&lot=a1&pieces=4000&water=61.5&tap=11",
    "product=causeway-stick&lot=b2&dough=12.5&division=0.001&target=24&flour=21&room=22&tap=0",
  ]) {
    expect(writeScenario(readScenario(new URLSearchParams(search))).toString()).toBe(search);
  }
});

test("an address cut short or made up is read as far as it goes", () => {
  const scenario = readScenario(
    new URLSearchParams("product=deck-roll-60&pieces=many&tap=&water=NaN"),
  );
  expect(scenario.amount).toBeNull();
  expect([scenario.tap, scenario.water, scenario.lot]).toEqual([null, null, null]);
  expect(writeScenario(readScenario(new URLSearchParams(""))).toString()).toBe("");
});
