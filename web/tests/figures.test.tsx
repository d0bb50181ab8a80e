import { render, screen, within } from "@testing-library/react";
import { MemoryRouter } from "react-router";
import { expect, test } from "vitest";
import type { ReactNode } from "react";
import type { Schemas } from "../src/api/client";
import { PredictionPlot } from "../src/figures/PredictionPlot";
import { FermentationFigure } from "../src/figures/FermentationFigure";
import { AbsorptionChange } from "../src/figures/AbsorptionChange";
import { WaterDistributionFigure } from "../src/figures/WaterDistributionFigure";
import { AbsorptionBuildUpFigure } from "../src/figures/AbsorptionBuildUpFigure";
import { TrialTable } from "../src/dough/TrialTable";
import { ScenarioProvider } from "../src/scenario/ScenarioProvider";
import { PreferencesProvider } from "../src/units/preferences";

const draw = (figure: ReactNode) =>
  render(
    <MemoryRouter initialEntries={["/water/absorption-model?product=deck-roll-60&mixer=1"]}>
      <PreferencesProvider>
        <ScenarioProvider>{figure}</ScenarioProvider>
      </PreferencesProvider>
    </MemoryRouter>,
  ).container;

const finite = (drawn: Element) => {
  for (const shape of drawn.querySelectorAll("svg *"))
    for (const { name, value } of shape.attributes)
      expect(value, `${shape.tagName} ${name}`).not.toMatch(/NaN|Infinity|undefined/);
};

const step = (key: string, points: number, low = points, high = points): Schemas["Adjustment"] => ({
  key,
  label: key,
  points,
  low,
  high,
  origin: "house",
  reason: "because",
});

const stair = (
  steps: Schemas["Adjustment"][],
  ceiling_pct?: number,
): Schemas["AbsorptionBuildUp"] => {
  const floor_pct = steps.reduce((sum, one) => sum + one.points, 0);
  return {
    steps,
    floor_pct,
    low_pct: floor_pct - 2,
    high_pct: floor_pct + 2,
    weigh_pct: floor_pct,
    ingredient_water_pct: 0,
    estimated: false,
    cautions: [],
    ...(ceiling_pct !== undefined && { ceiling_pct }),
  };
};

test("the stair has a column for each step and one for the floor", () => {
  const drawn = draw(
    <AbsorptionBuildUpFigure
      of={stair([step("base", 62, 61.4, 62.6), step("salt", -1.1, -1.7, -0.8), step("style", 3)])}
    />,
  );
  finite(drawn);
  expect(drawn.querySelectorAll("rect")).toHaveLength(5);
  expect(drawn.textContent).toContain("63.9");
  expect(drawn.textContent).toContain("−1.1");
  expect(drawn.textContent).not.toContain("what the strength is likely to carry");
});

test("the strength's ceiling is drawn where the stair comes near it", () => {
  const near = draw(
    <AbsorptionBuildUpFigure of={stair([step("base", 62), step("style", 18)], 82)} />,
  );
  expect(near.textContent).toContain("what the strength is likely to carry, 82.0 %");
  const far = draw(<AbsorptionBuildUpFigure of={stair([step("base", 55)], 90)} />);
  expect(far.textContent).not.toContain("likely to carry");
});

test("a stair of one step without a band is drawn all the same", () => {
  finite(
    draw(
      <AbsorptionBuildUpFigure of={{ ...stair([step("base", 60)]), low_pct: 60, high_pct: 60 }} />,
    ),
  );
});

test("shares of water are drawn beside each other and told in a table", () => {
  const shares = {
    protein_pct: 30,
    pentosan_pct: 20,
    intact_pct: 30,
    damaged_pct: 15,
    free_pct: 5,
  };
  const drawn = draw(
    <WaterDistributionFigure
      rows={[
        { name: "VR-1", shares },
        { name: "VR-2", shares: { ...shares, free_pct: 0, intact_pct: 35 } },
      ]}
    />,
  );
  finite(drawn);
  const widths = [...drawn.querySelectorAll("svg")].map((svg) =>
    [...svg.querySelectorAll("rect")].reduce(
      (sum, one) => sum + Number(one.getAttribute("width")),
      0,
    ),
  );
  expect(widths).toEqual([100, 100]);
  const table = screen.getByRole("table", { name: "Shares of the dough's water" });
  expect(within(table).getByRole("row", { name: /free water/ }).textContent).toContain(
    "5.0 %0.0 %",
  );
});

const point = (t_h: number, rise_pct: number, dough_c = 26): Schemas["FermentationPoint"] => ({
  t_h,
  rise_pct,
  dough_c,
  sugar_pct: 1,
});
const stage = (label: string, from_h: number, to_h: number): Schemas["RiseStage"] => ({
  label,
  kind: "rest",
  from_h,
  to_h,
  ambient_c: 26,
  ambient_end_c: 26,
  rise_pct: 0,
  dough_c: 26,
  sugar_pct: 1,
});

test("a rise is drawn over its stages, those too short without their name", () => {
  const drawn = draw(
    <FermentationFigure
      series={[point(0, 0), point(1, 40), point(1, 0), point(3, 120, 30)]}
      stages={[stage("Bulk fermentation", 0, 1), stage("Fold", 1, 1.05), stage("Proof", 1.05, 3)]}
    />,
  );
  finite(drawn);
  const names = [...drawn.querySelectorAll("text")].map((text) => text.textContent);
  expect(names).toContain("Bulk fermentation");
  expect(names).not.toContain("Fold");
  expect(names).toContain("1 h 00");
});

test("a dough of even temperature and no rise is drawn all the same", () => {
  finite(
    draw(<FermentationFigure series={[point(0, 0), point(2, 0)]} stages={[stage("Rest", 0, 2)]} />),
  );
});

const lot = (
  code: string,
  predicted_pct: number,
  measured_pct: number,
): Schemas["PredictedAbsorption"] => ({
  lot_id: code,
  code,
  flour: "Tarn Strong",
  received_at: "2026-11-05T00:00:00Z",
  predicted_pct,
  measured_pct,
  sd_pct: 1.5,
});

test("lots foretold wrong stand out and are listed, farthest first", () => {
  const lots = [lot("VR-1", 62, 62.2), lot("VR-2", 62, 66), lot("VR-3", 60, 59)];
  const drawn = draw(<PredictionPlot lots={lots} />);
  finite(drawn);
  const radii = [...drawn.querySelectorAll("circle")].map((one) => Number(one.getAttribute("r")));
  expect(radii.filter((r) => r > 4)).toHaveLength(1);
  const rows = within(screen.getByRole("table", { name: "Farthest off" }))
    .getAllByRole("row")
    .slice(1);
  expect(rows.map((row) => row.querySelector("a")?.textContent)).toEqual(["VR-2", "VR-3", "VR-1"]);
  expect(rows[0]?.querySelector("a")?.getAttribute("href")).toBe(
    "/flour?product=deck-roll-60&lot=VR-2&mixer=1",
  );
  expect(rows[1]?.textContent).toContain("−1.0");
});

test("one lot alone is drawn", () => finite(draw(<PredictionPlot lots={[lot("VR-1", 62, 62)]} />)));

test("thirst is shared out in bars, the unexplained one hollow", () => {
  const part = (key: string, label: string, points: number) => ({
    key,
    label,
    points,
    low: points - 0.2,
    high: points + 0.2,
  });
  const drawn = draw(
    <AbsorptionChange
      absorption_difference={{
        parts: [
          part("protein", "protein", 0.4),
          part("damaged_starch", "damaged starch", 2.1),
          part("unexplained", "unexplained", -0.3),
        ],
        measured: 2.2,
        explained: 2.5,
        coefficients: [],
      }}
    />,
  );
  finite(drawn);
  const bars = [...drawn.querySelectorAll("rect")];
  expect(bars).toHaveLength(4);
  expect(bars[2]?.getAttribute("fill")).toBe("none");
  expect(drawn.textContent).toContain("+2.1");
  expect(drawn.textContent).toContain("−0.3");
});

const variant = (
  name: string,
  water: number,
  extra: Partial<Schemas["Variant"]> = {},
): Schemas["Variant"] => ({
  name,
  interventions: [],
  dough_absorption_pct: water,
  added_water_pct: water,
  handling: "soft",
  mixing_min: 8,
  total_min: 200,
  ...extra,
});

test("doughs of a trial are lettered, and what differs from the first stands out", () => {
  draw(
    <TrialTable
      set={{
        kg: 2,
        variants: [
          variant("as it is", 60),
          variant("wetter", 63),
          variant("none", 60, { error: "no dough comes of it" }),
        ],
      }}
    />,
  );
  const table = screen.getByRole("table", { name: "The doughs of the trial" });
  const heads = within(table)
    .getAllByRole("columnheader")
    .slice(0, 3)
    .map((head) => head.textContent);
  expect(heads).toEqual(["A as it is", "B wetter", "C none"]);
  const water = [
    ...within(table)
      .getByRole("row", { name: /^water, all of it/ })
      .querySelectorAll("td"),
  ];
  expect(water.map((cell) => cell.className.includes("text-crust"))).toEqual([false, true, false]);
  expect(within(table).getByText("no dough comes of it")).toBeTruthy();
});
