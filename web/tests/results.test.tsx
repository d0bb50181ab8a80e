import { render, screen, waitFor, within } from "@testing-library/react";
import type { ReactElement } from "react";
import { expect, test, vi } from "vitest";
import type { Schemas } from "../src/api/client";
import { BatchChart } from "../src/figures/BatchChart";
import { BoardClock } from "../src/figures/BoardClock";
import { JarFigure } from "../src/figures/JarFigure";
import { LearnedBand } from "../src/figures/LearnedBand";
import { BatchesPage } from "../src/results/BatchesPage";
import { ChartsPage } from "../src/results/ChartsPage";
import { CompareBatchesPage } from "../src/results/CompareBatchesPage";
import { FaultsPage } from "../src/results/FaultsPage";
import { LearnedPage } from "../src/results/LearnedPage";
import { QuarterPage } from "../src/results/QuarterPage";
import { RecallPage } from "../src/results/RecallPage";
import { PreferencesProvider } from "../src/units/preferences";
import { MemoryRouter } from "react-router";
import { open, place } from "./page";

const FOUR = Date.UTC(2026, 10, 26, 4, 0);
const iso = (minutes: number) => new Date(FOUR + minutes * 60_000).toISOString();
const draw = (figure: ReactElement) =>
  render(
    <PreferencesProvider>
      <MemoryRouter>{figure}</MemoryRouter>
    </PreferencesProvider>,
  );

test("batches are searched and filtered, and the address says how", async () => {
  const { user } = open(<BatchesPage />, { at: "/results" });
  const table = await screen.findByRole("table");
  expect(within(table).getAllByRole("row").length).toBeGreaterThan(40);
  await user.selectOptions(screen.getByLabelText("State"), "held");
  await waitFor(() => expect(screen.getAllByText("held").length).toBeGreaterThan(1));
  await waitFor(() => expect(screen.getAllByRole("row")).toHaveLength(2));
  expect(place.search.get("state")).toBe("held");
  await user.selectOptions(screen.getByLabelText("State"), "");
  await user.selectOptions(screen.getByLabelText("Product"), "kesh-dark");
  await waitFor(() => {
    const names = screen.getAllByRole("link", { name: /^(Kesh|Ferry|Deck)/ });
    expect(names.every((one) => one.textContent === "Kesh Dark")).toBe(true);
  });
  expect(screen.getByRole("link", { name: "CSV" }).getAttribute("href")).toContain(
    "product=kesh-dark",
  );
});

test("columns are chosen, and up to four batches for comparing", async () => {
  const { user } = open(<BatchesPage />, { at: "/results?state=finished" });
  await screen.findByRole("table");
  expect(screen.queryByRole("columnheader", { name: /^proof/ })).toBeNull();
  await user.click(screen.getByText("Columns"));
  await user.click(screen.getByLabelText("proof"));
  expect(screen.getByRole("columnheader", { name: /^proof/ })).toBeTruthy();
  const boxes = screen.getAllByRole("checkbox", { name: /^Compare/ });
  await user.click(boxes[0] ?? document.body);
  expect(screen.getByRole("link", { name: "Compare with its plan" })).toBeTruthy();
  // Four are compared: a fifth takes the place of the first.
  for (const box of boxes.slice(1, 6)) await user.click(box);
  const link = screen.getByRole("link", { name: "Compare 4 batches" });
  expect(link.getAttribute("href")?.split(",")).toHaveLength(4);
});

test("no batch is like that: what belongs there is said", async () => {
  open(<BatchesPage />, { at: "/results?q=nothing+is+called+this" });
  expect(await screen.findByText(/^No batch is like that/)).toBeTruthy();
});

async function finished(many: number): Promise<string> {
  const answer = await fetch("/api/v1/batches?state=finished&product=deck-roll-60");
  const { batches } = (await answer.json()) as { batches: { id: string }[] };
  return batches
    .slice(0, many)
    .map(({ id }) => id)
    .join(",");
}

test("batches are compared differences first, and those that differ little on demand", async () => {
  const { user } = open(<CompareBatchesPage />, {
    at: `/results/compare?batches=${await finished(3)}`,
  });
  await screen.findByRole("columnheader", { name: "what it likely does" });
  const rows = screen.getAllByRole("row").length;
  await user.click(screen.getByRole("button", { name: /differ little$/ }));
  expect(screen.getAllByRole("row").length).toBeGreaterThan(rows);
  await user.click(screen.getByRole("button", { name: "Differences alone" }));
  expect(screen.getAllByRole("row")).toHaveLength(rows);
});

test("with no batch chosen the way to the list is shown, and a wrong address is told", async () => {
  const { router } = open(<CompareBatchesPage />, { at: "/results/compare" });
  expect(screen.getByText(/^Tick two to four batches/)).toBeTruthy();
  await router.navigate("/results/compare?batches=nonsense");
  expect((await screen.findByRole("alert")).textContent).toMatch(/ids of batches/);
});

test("a control chart shows a story and leads to its batches", async () => {
  const { user } = open(<ChartsPage />, { at: "/results/charts?of=deck-roll-60" });
  await screen.findByRole("figure", { name: /^Dough temperature over 1\d\d batches/ });
  const list = screen.getAllByText(/beyond a limit|eight in a row|slow drift/);
  expect(list.length).toBeGreaterThan(3);
  await user.selectOptions(screen.getByLabelText("Figure"), "loss");
  await screen.findByRole("figure", { name: /^Loss over/ });
  expect(place.search.get("figure")).toBe("loss");
});

test("too few batches make no chart, and it is said where figures come from", async () => {
  open(<ChartsPage />, { at: "/results/charts?of=lantern-flats" });
  expect(await screen.findByText(/^A chart needs three batches/)).toBeTruthy();
});

test("learned numbers are offered with their band, batches and what was left out", async () => {
  const { user } = open(<LearnedPage />, { at: "/results/learned?of=kesh-dark" });
  const water = await screen.findByRole("region", { name: "Water correction" });
  expect(within(water).getByText(/^Kesh Rye in Kesh Dark on Bench/)).toBeTruthy();
  const take = within(water).getByRole<HTMLButtonElement>("button", { name: /^Take over/ });
  expect(take.disabled, "a reason is wanted").toBe(true);
  await user.selectOptions(screen.getByLabelText("Product"), "ferry-tin-800");
  await waitFor(() => expect(screen.getByText(/^Tarn Strong in Ferry Tin 800/)).toBeTruthy());
  const loss = screen.getByRole("region", { name: /^Loss/ });
  expect(within(loss).getByText(/of the last 50 batches that told something/)).toBeTruthy();
  expect(within(loss).queryByRole("button", { name: /^Take over/ })).toBeNull();
});

test("a lot is recalled by the beginning of its code", async () => {
  const { user } = open(<RecallPage />, { at: "/results/recall" });
  expect(screen.getByText(/^Choose a lot/)).toBeTruthy();
  await user.type(screen.getByLabelText("Lot"), "VR-26-1063");
  await user.click(await screen.findByRole("button", { name: /^VR-26-1063/ }));
  const table = await screen.findByRole("table", { name: /VR-26-1063/ });
  expect(within(table).getAllByRole("link").length).toBeGreaterThan(1);
  expect(place.search.get("code")).toBe("VR-26-1063");
  expect(screen.getByRole("link", { name: "CSV" }).getAttribute("href")).toContain(
    "lot=VR-26-1063",
  );
});

test("a quarter stands against the one before", async () => {
  open(<QuarterPage />, { at: "/results/quarter" });
  const row = await screen.findByRole("row", { name: /^Batches/ });
  expect(row.textContent).toMatch(/^Batches\d+/);
  const cost = screen.getByRole("row", { name: /^Ingredients in rejected/ });
  expect(cost.textContent).toMatch(/batches(\d+[A-Z ]*){2}−?\d+ %$/);
});

const drift = (values: number[]): Schemas["Drift"] => ({
  centre: 27,
  sigma: 0.5,
  lower: 25.5,
  upper: 28.5,
  ewma_lower: 26.5,
  ewma_upper: 27.5,
  points: values.map((value) => ({
    value,
    ewma: 27,
    beyond: value > 28.5,
    run: false,
    drifting: false,
  })),
});

test("a batch beyond a limit is larger, and each is a way to itself", () => {
  const onBatch = vi.fn();
  const values = [27, 27.2, 29.5];
  const chart: Schemas["BatchChart"] = {
    figure: "dough_temperature",
    label: "Dough temperature",
    unit: "°C",
    batches: values.map((_, at) => ({
      id: `b${at}`,
      planned_for: iso(at * 1440),
      lot: at < 2 ? "VR-1" : "VR-2",
      new_lot: at === 2,
    })),
    drift: drift(values),
  };
  const { container } = draw(<BatchChart chart={chart} onBatch={onBatch} />);
  const points = [...container.querySelectorAll("circle")];
  expect(points.map((one) => one.getAttribute("r"))).toEqual(["3", "3", "5"]);
  expect(screen.getByText("VR-2"), "the new lot is marked").toBeTruthy();
  points[2]?.dispatchEvent(new MouseEvent("click", { bubbles: true }));
  expect(onBatch).toHaveBeenCalledWith("b2");
});

test("a learned number narrows, and what was left out is hollow", () => {
  const step = (
    at: number,
    value: number,
    left_out: string | null = null,
  ): Schemas["OfferStep"] => ({
    batch: `b${at}`,
    at: iso(at * 1440),
    value,
    left_out,
    believed: { typical: 0.6, low: 0.6 - 1 / (at + 1), high: 0.6 + 1 / (at + 1) },
  });
  const learned: Schemas["LearnedView"] = {
    subject: "water_correction",
    label: "Water correction",
    unit: "points",
    of: "Tarn Strong",
    offer: {
      prior: { typical: 0, low: -2.5, high: 2.5 },
      mean: 0.6,
      sd: 0.2,
      low: 0.3,
      high: 0.9,
      used: 2,
      hits: { inside: 2, of: 3 },
      history: [step(0, 0.5), step(1, 6, "too far off all others"), step(2, 0.7)],
      changed_since: null,
    },
    revisions: [],
    in_use: 0.4,
    can_be_taken: true,
  };
  const { container } = draw(<LearnedBand learned={learned} />);
  const fills = [...container.querySelectorAll("circle")].map((one) => one.getAttribute("fill"));
  expect(fills).toEqual(["var(--color-ink)", "var(--color-sheet)", "var(--color-ink)"]);
  expect(screen.getByText("in use 0.40 points")).toBeTruthy();
  expect(container.textContent).toContain("left out: too far off all others");
});

test("the jar shows its level, its readings and its mark", () => {
  const series = Array.from({ length: 61 }, (_, at) => {
    const t_h = at / 10;
    const typical = t_h * 15;
    return { t_h, rise_pct: { typical, low: typical * 0.8, high: typical * 1.2 } };
  });
  const view: Schemas["BatchFermentationView"] = {
    began_at: iso(0),
    now_h: 2,
    of: "jar",
    readings: [
      { t_h: 1, rise_pct: 14 },
      { t_h: 1.8, rise_pct: 28 },
    ],
    fermentation: {
      rate: { rate: 0.9, sd: 0.1 },
      wanted: { rise_pct: 50, at_h: 3.3, early_h: 2.9, late_h: 3.9 },
      series,
      into_the_cold: { cold_c: 4, until_h: 20, taken_out: [] },
    },
    message: null,
  };
  const { container, unmount } = draw(<JarFigure view={view} />);
  expect(screen.getByText("mark, +50 %")).toBeTruthy();
  expect(container.querySelectorAll("circle")).toHaveLength(2);
  unmount();
  const none = draw(<JarFigure view={{ ...view, fermentation: null }} />);
  expect(none.container.textContent).toBe("");
});

test("on the board what is planned is an outline, what is late is told", () => {
  const stage = (
    id: string,
    role: Schemas["StageRole"],
    minutes: number,
  ): Schemas["StagePlan"] => ({
    stage: id,
    kind: role === "bake" ? "bake" : "proof",
    role,
    label: id,
    at_min: 0,
    minutes,
    low_min: minutes,
    high_min: minutes,
    ends_when: "",
    end_point: "look",
    ended_by: "look",
    drops_at: 0.66,
    kj_per_kg_min: 0,
    folds_at_min: [],
  });
  const times = (id: string, from: number, to: number, begun: boolean): Schemas["StageTimes"] => ({
    stage: id,
    planned_begin: iso(from),
    planned_end: iso(to),
    begun_at: begun ? iso(from) : null,
    ended_at: null,
    expected_begin: iso(from),
    expected_end: iso(to),
    due_at: iso(to),
    limit_at: iso(to),
    lasted_min: null,
    beyond_limit: begun,
  });
  const line: Schemas["BoardLine"] = {
    line_id: "l",
    line: "Line 1",
    batches: [
      {
        id: "b",
        product: "Ferry Tin 800",
        lot: "VR-1",
        state: "running",
        planned_for: iso(-60),
        stages: [stage("Proof", "proof", 60), stage("Bake", "bake", 25)],
        times: [times("Proof", -30, 30, true), times("Bake", 30, 55, false)],
        next: { stage: "Proof", due_at: iso(-20), late_min: 20 },
        unplaced: 0,
      },
    ],
  };
  const { container } = draw(<BoardClock line={line} now={FOUR} />);
  expect(screen.getByText(/running, 20 min late/)).toBeTruthy();
  expect(screen.getByRole("link").getAttribute("href")).toBe("/batches/b/run");
  const bars = [...container.querySelectorAll("rect")].filter((one) => one.querySelector("title"));
  expect(bars.map((one) => one.getAttribute("fill"))).toEqual([
    "url(#rises)",
    "var(--color-sheet)",
  ]);
  expect(bars[0]?.getAttribute("stroke"), "it passed its limit").toBe("var(--color-stop)");
});

test("a fault's causes are found from the batch's own figures, and an answer moves them", async () => {
  const id = await finished(1);
  const { user } = open(<FaultsPage />, { at: `/results/faults?batch=${id}` });
  expect(screen.getByText(/^Choose a batch and what is wrong/)).toBeTruthy();
  const option = await screen.findByRole("option", { name: /Smearing on slicer blades/ });
  await user.selectOptions(screen.getByLabelText("What is wrong"), option);
  const causes = await screen.findByRole("region", { name: "Causes" });
  expect(place.search.get("fault")).toBe("smearing");
  expect(within(causes).getAllByRole("button", { expanded: false }).length).toBe(8);
  expect(causes.textContent).toContain("house judgement");
  const known = screen.getByRole("region", { name: "What is known" });
  const core = await within(known).findByLabelText(/^core at the slicer/);
  await user.type(core, "46{Enter}");
  await waitFor(() => {
    const first = within(causes).getAllByRole("button")[0];
    expect(first?.textContent).toBe("Sliced or cut too warm");
  });
  await user.click(within(causes).getByRole("button", { name: "Sliced or cut too warm" }));
  expect(within(causes).getByText(/A warm crumb is a soft gel/)).toBeTruthy();
  expect(within(causes).getAllByText(/speaks for it/).length).toBeGreaterThan(0);
  expect(screen.getByRole("button", { name: /^Write \d answers? to the batch/ })).toBeTruthy();
});

test("what drifts is told with its batches until somebody has seen it", async () => {
  const { user } = open(<FaultsPage />, { at: "/results/faults" });
  const told = await screen.findByRole("region", { name: "Drifting, not a fault yet" });
  const rows = within(told).getAllByRole("listitem");
  for (const row of rows)
    expect(row.textContent).toMatch(
      / in the mean, usual .*: (above|below) in [678] of [678] batches since /,
    );
  const [first] = rows;
  if (!first) throw new Error("nothing drifts");
  const link = within(first).getByRole("link", { name: "the newest of them" });
  expect(link.getAttribute("href")).toMatch(/^\/results\/faults\?batch=/);
  const said = first.textContent ?? "";
  await user.click(within(first).getByRole("button", { name: "Seen" }));
  await waitFor(() => expect(document.body.textContent).not.toContain(said));
});

test("an action is an edit of the product's next dough", async () => {
  const id = await finished(1);
  const { user } = open(<FaultsPage />, { at: `/results/faults?batch=${id}&fault=smearing` });
  const causes = await screen.findByRole("region", { name: "Causes" });
  await user.click(
    within(causes).getByRole("button", { name: "More water than the flour can hold" }),
  );
  const row = within(causes).getByText(/^Water -1.0 point/);
  await user.click(within(row).getByRole("button", { name: "Open as a what-if" }));
  await waitFor(() => expect(place.path).toBe("/water"));
  expect(place.scenario.scenario.product).toBeTruthy();
  expect(place.scenario.scenario.water).toBeGreaterThan(40);
});

test("mould and rope are never ranked", () => {
  open(<FaultsPage />, { at: "/results/faults" });
  expect(screen.getByText("Mould or rope")).toBeTruthy();
  expect(screen.getByText(/local rules decide about the rest/)).toBeTruthy();
});
