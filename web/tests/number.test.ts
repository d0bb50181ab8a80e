import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { given, parseNumber, type Mark } from "../src/units/number";
import { parseQuantity, type Kind } from "../src/units/parse";

interface Case {
  text: string;
  mark?: Mark;
  value?: number;
  error?: string;
}

const CASES = JSON.parse(
  readFileSync("../crates/core/tests/all/vectors/numbers.json", "utf8"),
) as Case[];

test.each(CASES)("“$text” with mark $mark", ({ text, mark, value, error }) => {
  expect(parseNumber(text, mark)).toEqual(error ? { fault: error } : { value });
});

const HERE = { temperature: "C", mass: "kg" } as const;

test.each<[string, Kind, Mark, number]>([
  ["4,000", "number", ".", 4000],
  ["4.000", "number", ",", 4000],
  ["1 250 g", "mass", ".", 1.25],
  ["1,250 g", "mass", ".", 1.25],
  ["1,250 kg", "mass", ",", 1.25],
  ["3 lb 4 oz", "mass", ".", 1.47417521],
  ["50 F", "temperature", ".", 10],
  ["−4,5 °C", "temperature", ".", -4.5],
  ["62 %", "percent", ".", 62],
])("%s as %s with %s is %d", (text, kind, mark, value) => {
  expect(parseQuantity(text, kind, { ...HERE, mark })).toEqual({
    value: expect.closeTo(value, 7) as number,
  });
});

test.each<[string, Kind, RegExp]>([
  ["24-26", "temperature", /is a range/],
  ["24 to 26 °C", "temperature", /is a range/],
  ["24 °C 26 °C", "temperature", /is not a temperature/],
  ["3 lb 4", "mass", /is not a mass/],
  ["1 25", "number", /is not a number/],
  ["soon", "number", /is not a number/],
])("%s as %s is refused in words", (text, kind, message) => {
  const read = parseQuantity(text, kind, { ...HERE, mark: "." });
  expect("message" in read && read.message).toMatch(message);
});

test("what a form cannot read goes as it was typed, for the server to say what is wrong", () => {
  expect(given("1,250", ",")).toBe(1.25);
  expect(given(" ", ".")).toBeNull();
  expect(given("24-26", ".")).toBe("24-26");
});
