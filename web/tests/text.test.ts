import { expect, test } from "vitest";
import { Format } from "../src/units/format";
import { USUAL, type Preferences } from "../src/units/preferences";

const of = (change: Partial<Preferences>) => new Format({ ...USUAL, ...change });

test("a text has its quantities in the units of who reads it, a difference as a difference", () => {
  const pounds = of({ temperature: "F", mass: "lb" });
  for (const [text, metric, imperial] of [
    ["core 95 °C, arrived by 85 %", "core 95 °C, arrived by 85 %", "core 203 °F, arrived by 85 %"],
    ["flour 7.3 K cooler", "flour 7.3 °C cooler", "flour 13.1 °F cooler"],
    ["tap 1 K colder", "tap 1 °C colder", "tap 2 °F colder"],
    ["1 kg more of it ice", "1 kg more of it ice", "2.20 lb more of it ice"],
    ["a scale that shows 0.5 g", "a scale that shows 0.5 g", "a scale that shows 0.018 oz"],
    ["it is 2 to 8 °C there", "it is 2 to 8 °C there", "it is 36 to 46 °F there"],
    ["core −10 °C: ice", "core −10 °C: ice", "core 14 °F: ice"],
    ["less mixing (3.2 kJ/kg)", "less mixing (3.2 kJ/kg)", "less mixing (3.2 kJ/kg)"],
    [
      "dough off the mixer must be from 0 to 60 °C; 93.3 was given",
      "dough off the mixer must be from 0 to 60 °C; 93.3 was given",
      "dough off the mixer must be from 32 to 140 °F; 199.9 °F was given",
    ],
  ] as const) {
    expect(of({}).text(text)).toBe(metric);
    expect(pounds.text(text)).toBe(imperial);
  }
  expect(of({ mark: "," }).text("flour 7.3 K cooler")).toBe("flour 7,3 °C cooler");
});

test("small doughs, bags and long times are shown as what they are", () => {
  const format = of({});
  expect(format.mass(0.55)).toBe("550 g");
  expect(format.mass(2.354)).toBe("2.35 kg");
  expect(format.mass(160)).toBe("160.0 kg");
  expect(format.tonnes(0.025)).toBe("25 kg");
  expect(format.tonnes(24.6)).toBe("24.6 t");
  expect(format.figure(11_043, "min", true)).toBe("+184 h 03");
  expect(format.figure(-12, "min", true)).toBe("−12 min");
  expect(format.degrees(40.2)).toBe("+40.2 °C");
  expect(of({ temperature: "F" }).apart(40.2)).toBe("72.4 °F");
});
