import { render, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schemas } from "../src/api/client";
import { BakeTraceFigure } from "../src/figures/BakeTraceFigure";
import { ScoreRule } from "../src/figures/ScoreRule";
import { PreferencesProvider } from "../src/units/preferences";

const probe = (name: string, late: number): Schemas["ProbeReading"] => ({
  name,
  yeast_kill_min: 9.78 - late,
  gelatinised_min: 15.33 - late,
  arrival_min: 18.5 - late,
  arrival_pct: (100 * (18.5 - late)) / 20,
  end_c: 96,
});

const FOUND: Schemas["ReadBake"] = {
  bake: {
    id: "1",
    batch_id: "2",
    product: "Ferry Tin 800",
    slug: "ferry-tin-800",
    line: "Line 1",
    planned_for: "2026-11-30T01:00:00Z",
    source: "imported",
    bake_min: 20,
    arrival_pct: 92.5,
    steam_until_min: 14.9,
    made_by: "Runa Kell",
    made_at: "2026-11-30T09:00:00Z",
  },
  damaged_starch: null,
  read: {
    probes: [probe("left", 0), probe("right", 1)],
    slowest: "left",
    spread_min: 1,
    target_arrival_pct: 85,
    bake_min_for_target: 21.76,
    steam_until_min: 14.9,
    notes: [],
  },
  levels: { yeast_kill_c: 56, gelatinised_c: 82, arrival_c: 93, steam_until_c: 80 },
  t_min: [0, 8, 14, 20],
  probes: [
    { name: "left", core_c: [28, 48, 76, 96] },
    { name: "right", core_c: [28, 51, 80, 97] },
  ],
  wanted: null,
  steam: null,
  programme: [],
  core_c: 96,
  earlier: [],
  moves: [],
};

test("the slowest core is strong, its three crossings are told with their shares", () => {
  render(
    <PreferencesProvider>
      <BakeTraceFigure found={FOUND} />
    </PreferencesProvider>,
  );
  expect(screen.getByText("18.5 min, 93 %")).toBeTruthy();
  expect(screen.getByText("9.8 min, 49 %")).toBeTruthy();
  expect(screen.getByText("target 85 %")).toBeTruthy();
  const widths = ["left", "right"].map((name) =>
    Number(screen.getByText(name).parentElement?.getAttribute("stroke-width")),
  );
  expect(widths[0]).toBeGreaterThan(widths[1] ?? 0);
});

test("a signed mark leans to its side", () => {
  const leaning = (sign: Schemas["Sign"]) => {
    const { container, unmount } = render(
      <ScoreRule label="Volume" joint={{ mark: 3, low: 2.5, high: 3.5, sign }} />,
    );
    const mark = container.querySelector("line[stroke-width='3']");
    const lean = Number(mark?.getAttribute("x2")) - Number(mark?.getAttribute("x1"));
    unmount();
    return lean;
  };
  expect(leaning("too_little")).toBeLessThan(0);
  expect(leaning("too_much")).toBeGreaterThan(0);
});
