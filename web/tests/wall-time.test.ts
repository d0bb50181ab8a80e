import { describe, expect, it } from "vitest";
import { moveWallTime, readWallTime, showWallTime } from "../src/units/wallTime";

const STANDS = "2026-11-27T05:00";
const TODAY = "2026-11-26T21:40";

describe("a date and a time as it is typed", () => {
  it.each([
    ["2026-12-01T04:30", "2026-12-01T04:30"],
    ["1.12.2026 4:30", "2026-12-01T04:30"],
    ["1 Dec 2026, 04:30", "2026-12-01T04:30"],
    ["Tue 1 Dec 2026, 4:30 am", "2026-12-01T04:30"],
    ["1 Dec 4.30", "2026-12-01T04:30"],
    ["1 dec 17:05", "2026-12-01T17:05"],
    ["6:15", "2026-11-27T06:15"],
    ["5:30 pm", "2026-11-27T17:30"],
    ["tomorrow 5:00", "2026-11-27T05:00"],
    ["Today 23:15", "2026-11-26T23:15"],
    ["31.11.2026 5:00", null],
    ["27 Nov 25:00", null],
    ["soon", null],
    ["", null],
  ])("reads “%s”", (typed, wanted) => {
    expect(readWallTime(typed, STANDS, TODAY)).toBe(wanted);
  });

  it("comes back from what is shown, in either clock", () => {
    for (const clock of ["24", "12"] as const)
      for (const field of ["2026-02-28T00:00", "2026-11-27T12:00", "2027-01-01T23:45"])
        expect(readWallTime(showWallTime(field, clock), STANDS, TODAY)).toBe(field);
  });

  it("moves over midnight", () => {
    expect(moveWallTime("2026-12-31T23:50", 15)).toBe("2027-01-01T00:05");
    expect(showWallTime("none", "24")).toBe("");
  });
});
