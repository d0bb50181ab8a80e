import { render, renderHook, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, test, vi } from "vitest";
import type { Schemas } from "../src/api/client";
import { MarkLine } from "../src/judging/MarkLine";
import { PanelSheet } from "../src/judging/PanelSheet";
import { PaperSheet } from "../src/judging/PaperSheet";
import { ScoresPage } from "../src/judging/ScoresPage";
import { StandardPage } from "../src/judging/StandardPage";
import { marksOf, markText, type Marked, type Sheet } from "../src/judging/sheet";
import { doughLetter, useDifference } from "../src/judging/trialWords";
import { PreferencesProvider } from "../src/units/preferences";
import { open, place } from "./page";

const LINE: Schemas["SheetLine"] = {
  of: "volume",
  label: "Volume",
  weight: 12,
  two_sided: true,
  anchors: ["brick", "small or large", "as the standard"],
  measure: {
    words: "specific volume",
    unit: "ml/g",
    says_side: true,
    target: { target: 4, range: 1 },
  },
};

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

  it("writes a mark with its side", () => {
    const format = { number: (value: number, decimals = 1) => value.toFixed(decimals) };
    expect(markText(3, "too_little", format)).toBe("3.00−");
    expect(markText(3.5, "too_much", format)).toBe("3.50+");
    expect(markText(4.04, null, format)).toBe("4.04");
  });
});

/** A line that keeps what is set, and tells it. */
function Kept({ line, told }: { line: Schemas["SheetLine"]; told: (marked: Marked) => void }) {
  const [marked, set] = useState<Marked>({});
  return (
    <PreferencesProvider>
      <ol>
        <MarkLine
          number={1}
          line={line}
          marked={marked}
          place={0}
          onSet={(next) => {
            set(next);
            told(next);
          }}
        />
      </ol>
    </PreferencesProvider>
  );
}

test("a two-sided mark under the best asks for its side, the best does not", async () => {
  const user = userEvent.setup();
  const told = vi.fn();
  render(<Kept line={LINE} told={told} />);
  const scale = screen.getByRole("radiogroup", { name: /Volume/ });
  expect(screen.queryByRole("radiogroup", { name: "side of Volume" })).toBeNull();
  await user.click(within(scale).getByRole("radio", { name: "3.5" }));
  await user.click(screen.getByRole("radio", { name: "− too little" }));
  expect(told).toHaveBeenLastCalledWith({ mark: 3.5, sign: "too_little" });
  await user.click(within(scale).getByRole("radio", { name: "5" }));
  expect(screen.queryByRole("radiogroup", { name: "side of Volume" })).toBeNull();
  // Its side is remembered where it counts again.
  await user.click(within(scale).getByRole("radio", { name: "4.5" }));
  expect(told).toHaveBeenLastCalledWith({ mark: 4.5, sign: "too_little" });
});

test("what is measured takes the mark's place, and cleared it goes", async () => {
  const user = userEvent.setup();
  const told = vi.fn();
  render(<Kept line={LINE} told={told} />);
  const field = screen.getByLabelText("measured: specific volume, ml/g");
  await user.type(field, "3.7{Enter}");
  expect(told).toHaveBeenLastCalledWith({ measured: 3.7 });
  expect(screen.queryByRole("radio", { checked: true })).toBeNull();
  await user.clear(field);
  await user.keyboard("{Enter}");
  expect(told).toHaveBeenLastCalledWith({ sign: undefined });
});

const PANEL: Schemas["Panel"] = {
  traits: [
    {
      of: "volume",
      weight: 12,
      mark: 1.5,
      sign: "too_little",
      sd: 0.3,
      low: 1,
      high: 2,
      agree: false,
      marks: [
        { judge: "Runa Kell", mark: 1, levelled: 1 },
        { judge: "Odd Marren", mark: 2.5, levelled: 2.4 },
      ],
    },
  ],
  total: { total: null, weight: 12, stops: ["volume"] },
  total_sd: null,
  judges: ["Runa Kell", "Odd Marren"].map((judge) => ({
    judge,
    level: 0.1,
    sd: 0.4,
    total: { total: null, weight: 12, stops: [] },
  })),
  loaves: 1,
  crumb_mark: null,
  crumb_is_low: false,
};

test("judges who disagree are sent back, a stop is told, and too little weight is no total", () => {
  render(
    <PreferencesProvider>
      <PanelSheet panel={PANEL} lines={[LINE]} />
    </PreferencesProvider>,
  );
  expect(screen.getByText(/No total: only 12 of 100/)).toBeTruthy();
  expect(screen.getByText(/Stop: volume is so low/)).toBeTruthy();
  const row = screen.getByRole("row", { name: /^Volume/ });
  expect(within(row).getByText("1.50−")).toBeTruthy();
  expect(within(row).getByText(/look once more, blind/)).toBeTruthy();
  expect(screen.getByText(/Odd Marren: level \+0.10/)).toBeTruthy();
});

test("the paper sheet has a ring for every half and a place for what is measured", () => {
  render(
    <PaperSheet
      blank={{ code: "417", product: "Ferry Tin 800", lines: [LINE], photographs: [] }}
      code={null}
    />,
  );
  const rings = screen
    .getAllByRole("cell", { hidden: true })
    .filter((cell) => cell.textContent?.startsWith("○"));
  expect(rings).toHaveLength(9);
  expect(screen.getByText(/______ ml\/g/)).toBeTruthy();
});

test("finished batches are listed with their scores", async () => {
  const { user } = open(<ScoresPage />, { at: "/results/scores?of=ferry-tin-800" });
  const table = await screen.findByRole("table", { name: "Finished batches" });
  expect(within(table).getAllByRole("link", { name: /^\d\d$/ }).length).toBeGreaterThan(5);
  expect(within(table).getAllByRole("link", { name: "judge it" }).length).toBeGreaterThan(5);
  await user.selectOptions(screen.getByLabelText("Product"), "kesh-dark");
  await waitFor(() => expect(place.search.get("of")).toBe("kesh-dark"));
});

test("a standard that is edited says what it adds up to, and is discarded", async () => {
  const { user } = open(<StandardPage />, { at: "/results/standard?of=rigg-spelt-500" });
  const weight = await screen.findByLabelText("weight of Volume");
  await user.clear(weight);
  await user.type(weight, "20{Enter}");
  expect(screen.getByText("108")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Save revision 1" })).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Discard" }));
  expect(screen.getByText("100")).toBeTruthy();
  expect(screen.queryByRole("button", { name: /Save revision/ })).toBeNull();
});

describe("a dough beside the dough as it is", () => {
  const beside = (total: Partial<Schemas["TestedDifference"]> | null, bakes = 1) => ({
    variant: 1,
    bakes,
    loaves: 3,
    traits: [],
    total: total && {
      difference: 6.2,
      limit: 4.1,
      says: "not_shown" as const,
      loaves_needed: null,
      bakes_needed: null,
      ...total,
    },
  });
  const says = (of: ReturnType<typeof beside> | undefined) =>
    renderHook(useDifference, { wrapper: PreferencesProvider }).result.current(of);

  it("differs for real where bakes say so, as doughs only where one does", () => {
    expect(says(beside({ says: "variants_differ" }, 3))).toBe(
      "+6.2 points (3 bakes of 3 loaves each): real; from 4.1 a difference is seen",
    );
    expect(says(beside({ says: "doughs_differ" }))).toMatch(
      /these two doughs differ.*another bake/,
    );
  });

  it("is not shown with what would show it, as far as anything would", () => {
    const under = "not shown; a difference under 4.1 would not be seen";
    expect(says(beside({ loaves_needed: 5, bakes_needed: 2 }))).toMatch(
      `${under}; 5 loaves of each, or 2 bakes would show one of this size`,
    );
    expect(says(beside({}))).toMatch(new RegExp(`${under}$`));
    expect(says(beside(null))).toMatch(/too little is marked/);
    expect(says(undefined)).toBe("");
    expect([0, 3].map(doughLetter)).toEqual(["A", "D"]);
  });
});
