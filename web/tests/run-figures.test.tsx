import { fireEvent, render, screen } from "@testing-library/react";
import type { ReactElement } from "react";
import { beforeEach, expect, test, vi } from "vitest";
import type { Schemas } from "../src/api/client";
import { RefreshmentFigure } from "../src/figures/RefreshmentFigure";
import { RunChart } from "../src/figures/RunChart";
import { ProcessComparisonFigure } from "../src/figures/ProcessComparisonFigure";
import { CadenceTable } from "../src/method/CadenceTable";
import { Format } from "../src/units/format";
import { PreferencesProvider, USUAL } from "../src/units/preferences";

const FOUR = Date.UTC(2026, 10, 26, 4, 0);
const iso = (minutes: number) => new Date(FOUR + minutes * 60_000).toISOString();

beforeEach(() => localStorage.clear());

const draw = (figure: ReactElement) => render(<PreferencesProvider>{figure}</PreferencesProvider>);

const stage = (
  number: number,
  label: string,
  role: Schemas["StageRole"],
  from: number,
  to: number,
  past_min = 0,
): Schemas["RunStage"] => ({
  stage: number,
  label,
  kind: "rest",
  role,
  starts_at: iso(from),
  ends_at: iso(to),
  waits_min: past_min,
  past_min,
  folds: [],
});

const CADENCE: Schemas["Cadence"] = {
  minutes: 20,
  bottleneck: "oven",
  paces: [
    { place: "mixer", minutes: 12, message: "9 min in the bowl and 3 to turn round" },
    { place: "oven", minutes: 19.6, message: "500 pieces for 24 min, 610 at once" },
  ],
  divide_min: 19.6,
  divider_per_min: 25.5,
  oldest_min: 34.6,
  divide_limit_min: 20,
  most_kg: 459,
  troughs: 12,
  floor_m2: 25.2,
  sponge_waits_min: 0,
};

const run = (past = 0): Schemas["RunPlan"] => ({
  cadence: CADENCE,
  doughs: [0, 1, 2].map((at) => ({
    number: at + 1,
    starts_at: iso(at * 20),
    out_at: iso(at * 20 + 200),
    stages: [
      stage(0, "Sponge", "sponge", at * 20, at * 20 + 100, at === 1 ? past : 0),
      stage(1, "Mix", "mixing", at * 20 + 100, at * 20 + 110),
      stage(2, "Bake", "bake", at * 20 + 110, at * 20 + 200),
      stage(3, "Cool", "cool", at * 20 + 200, at * 20 + 290),
    ],
  })),
  starts_at: iso(0),
  first_out_at: iso(180),
  out_at: iso(240),
  moved_min: 0,
  troughs: [
    { from: iso(0), troughs: 1 },
    { from: iso(20), troughs: 2 },
    { from: iso(140), troughs: 0 },
  ],
  fullest: [{ place: "oven", most: 598, holds: 610 }],
  cautions: [],
  past: [],
});

const chart = (more: Partial<Parameters<typeof RunChart>[0]> = {}) =>
  draw(
    <RunChart
      plan={run()}
      rise={undefined}
      stop={undefined}
      now={FOUR - 1}
      chosen={null}
      onChoose={() => {}}
      {...more}
    />,
  );

const numbers = (element: Element, ...names: string[]) =>
  names.map((name) => Number(element.getAttribute(name)));

test("a run draws a bar for each stage but cooling, each a row lower and a cadence later", () => {
  chart();
  const bars = screen.getAllByRole("button");
  expect(bars).toHaveLength(9);
  const sponges = bars.filter((bar) => bar.getAttribute("aria-label")?.includes("Sponge"));
  const [first, second, third] = sponges.map((bar) => numbers(bar, "x", "y", "width"));
  if (!first || !second || !third) throw new Error("three sponges");
  expect(second[0]! - first[0]!).toBeCloseTo(third[0]! - second[0]!, 6);
  expect(second[1]).toBeGreaterThan(first[1]!);
  // A hundred minutes of sponge are five cadences long.
  expect(first[2]! / (second[0]! - first[0]!)).toBeCloseTo(5, 6);
  expect(screen.getByText("troughs in use, to 2")).toBeTruthy();
});

test("a bar is chosen by a click, and what is too long is ringed", () => {
  const choose = vi.fn();
  chart({ plan: run(30), onChoose: choose });
  const late = screen.getByRole("button", { name: /^Dough 2, Sponge/ });
  expect(late.getAttribute("stroke")).toBe("var(--color-stop)");
  const calm = screen.getByRole("button", { name: /^Dough 1, Sponge/ });
  expect(calm.getAttribute("stroke")).not.toBe("var(--color-stop)");
  fireEvent.click(late);
  expect(choose).toHaveBeenCalledExactlyOnceWith(2, 0);
});

test("a standstill and now are drawn where they are, and not outside the run", () => {
  const stops = () => document.querySelectorAll('rect[fill="var(--color-stop)"]');
  const now = () => document.querySelectorAll('line[stroke="var(--color-stop)"]');
  const { unmount } = chart();
  expect([stops().length, now().length]).toEqual([0, 0]);
  unmount();
  chart({ stop: { from: FOUR - 3_600_000, to: FOUR + 60 * 60_000 }, now: FOUR + 120 * 60_000 });
  const [x = 0, width = 0] = numbers(stops()[0]!, "x", "width");
  const [at = 0] = numbers(now()[0]!, "x1");
  const [begins = 0] = numbers(screen.getByRole("button", { name: /^Dough 1, Sponge/ }), "x");
  expect(x).toBeCloseTo(begins, 6);
  expect(at - begins).toBeCloseTo(2 * width, 6);
});

const way = (process: Schemas["Process"], change: Partial<Schemas["ProcessOutcome"]>) =>
  ({
    process,
    hours: 6,
    mixing_kj_per_kg: 20,
    floor_m2: 30,
    sponge_waits_min: 0,
    dough_absorption_pct: 62,
    ...change,
  }) as Schemas["ProcessOutcome"];

test("both ways are drawn on one scale each", () => {
  const own = way("sponge_dough", {});
  draw(<ProcessComparisonFigure own={own} other={way("no_time", { hours: 2, floor_m2: 0 })} />);
  const widths = [...document.querySelectorAll("rect")].map((bar) => numbers(bar, "width")[0]!);
  expect(widths).toHaveLength(8);
  expect(widths[1]! / widths[0]!).toBeCloseTo(1 / 3, 6);
  expect(widths[2]).toBeCloseTo(widths[3]!, 6);
  expect(widths[5], "nothing is a hair's breadth").toBe(1);
  expect(screen.getAllByText(/straight/)).toHaveLength(4);
});

test("a starter is shaded while it is at its best, and its rise capped where it falls", () => {
  const feed = (ripe_h: number | null, tired_h: number | null): Schemas["Refreshment"] => ({
    reachable: true,
    flour_parts: 1,
    water_parts: 1,
    starter_g: 100,
    flour_g: 100,
    water_g: 100,
    hydration_pct: 100,
    ripe_h,
    tired_h,
    looks: [],
    series: [0, 4, 8, 12].map((t_h) => ({ t_h, rise_pct: t_h * 50, dough_c: 24, sugar_pct: 1 })),
  });
  const { unmount } = draw(<RefreshmentFigure feed={feed(4, 8)} feedAt="2026-11-26T08:00" />);
  const [x = 0, width = 0] = numbers(document.querySelector("rect")!, "x", "width");
  expect(x - width, "a third in, a third wide").toBeCloseTo(34, 6);
  expect(screen.getByText("rise, to 260 %")).toBeTruthy();
  const drawn = document.querySelector("path")?.getAttribute("d") ?? "";
  expect(drawn.match(/[ML]/g), "0 and 200 %, and not 400 and 600").toHaveLength(2);
  expect(screen.getByText("falls back")).toBeTruthy();
  expect(screen.getByText("08:00")).toBeTruthy();
  unmount();
  draw(<RefreshmentFigure feed={feed(null, null)} feedAt="2026-11-26T08:00" />);
  expect(document.querySelector("rect")).toBeNull();
});

test("the bottleneck is named, with what a dough may weigh", () => {
  draw(<CadenceTable cadence={CADENCE} fullest={run().fullest} />);
  expect(screen.getByRole("heading", { name: "The oven is the bottleneck" })).toBeTruthy();
  expect(screen.getByRole("row", { name: /^oven 500 pieces for 24 min/ }).textContent).toContain(
    "19.6 min",
  );
  expect(screen.getByText(/To be divided in 20 min it may weigh 459 kg/)).toBeTruthy();
  expect(screen.getByText(/12 troughs in a steady run, 25.2 m² of floor/)).toBeTruthy();
  expect(screen.getByText(/At its fullest: oven 598 of 610/)).toBeTruthy();
});

test("a stretch of minutes says its unit once where it can", () => {
  const format = new Format(USUAL);
  expect(format.between(4, 17)).toBe("4 to 17 min");
  expect(format.between(45, 75)).toBe("45 min to 1 h 15");
  expect(format.between(165, 270)).toBe("2 h 45 to 4 h 30");
});
