import { describe, expect, it } from "vitest";
import { marksOf, markText, type Sheet } from "../src/judging/sheet";

describe("a sheet", () => {
  it("sends every line on which something stands, its side under the best only", () => {
    const sheet: Sheet = {
      volume: { mark: 3.5, sign: "too_little" },
      openness: { mark: 5, sign: "too_much" },
      evenness: { measured: 9 },
      crust_colour: { sign: "too_much" },
      flavour: {},
    };
    expect(marksOf(sheet)).toEqual([
      { of: "volume", mark: 3.5, sign: "too_little" },
      { of: "openness", mark: 5 },
      { of: "evenness", measured: 9 },
    ]);
  });

  it("writes a mark as on paper", () => {
    const number = (value: number, decimals: number) => value.toFixed(decimals);
    expect(markText(3, "too_little", number)).toBe("3−");
    expect(markText(3.5, "too_much", number)).toBe("3.5+");
    expect(markText(4.04, null, number)).toBe("4.04");
  });
});
