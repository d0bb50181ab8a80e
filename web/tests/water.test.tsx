import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { GrainsPage } from "../src/water/GrainsPage";
import { WaterDistributionPage } from "../src/water/WaterDistributionPage";
import { CompareProductLotsPage } from "../src/water/CompareProductLotsPage";
import { AbsorptionModelPage } from "../src/water/AbsorptionModelPage";
import { CorrectionFactorsPage } from "../src/water/CorrectionFactorsPage";
import { WaterPage } from "../src/water/WaterPage";
import { computed, inHand, open, place } from "./page";

const numbers = (text: string | null | undefined) => (text ?? "").match(/[−+]?\d+(\.\d+)?/g) ?? [];
const value = (text: string) => Number(text.replace("−", "-"));

test("the steps of the stair are its floor figure", async () => {
  open(<WaterPage />, { at: await inHand("/water", "deck-roll-60", "VR-26-1090") });
  await computed();
  const table = await screen.findByRole("table", { name: "Absorption build-up in figures" });
  const rows = within(table).getAllByRole("row").slice(1);
  const points = rows.map((row) => value(row.querySelectorAll("td, th")[1]?.textContent ?? ""));
  const floor = points.pop() ?? 0;
  expect(points.reduce((sum, one) => sum + one, 0)).toBeCloseTo(floor, 1);
  for (const row of rows.slice(0, -1)) {
    expect(row.querySelectorAll("td")[3]?.textContent, "its origin").toMatch(/^[SPHLC] /);
    expect(row.querySelectorAll("td")[4]?.textContent?.length, "its reason").toBeGreaterThan(5);
  }
  expect(screen.queryByText(/No curve of this flour/)).toBeNull();
});

test("a lot without a curve says so, and what waits at first", async () => {
  open(<WaterPage />, { at: await inHand("/water", "holm-tin", "BS-0430") });
  await computed();
  await screen.findByText(/No curve of this flour/);
  expect(screen.getByText(/Hold-back water: 2.0 points/)).toBeTruthy();
  const link = screen.getByRole("link", { name: "see what the estimate rests on" });
  expect(link.getAttribute("href")).toContain("/water/absorption-model?product=holm-tin");
});

test("water set by hand is a step of its own and goes back", async () => {
  const { user } = open(<WaterPage />, {
    at: await inHand("/water", "deck-roll-60", "VR-26-1090"),
  });
  await computed();
  const byHand = await screen.findByLabelText(/^Override/);
  await user.type(byHand, "66{Enter}");
  await waitFor(() => expect(screen.getAllByText("66.0").length).toBeGreaterThan(0));
  expect(place.search.get("water")).toBe("66");
  await screen.findByRole("cell", { name: "override" });
  await user.click(screen.getByRole("button", { name: "Reset to computed" }));
  await waitFor(() => expect(screen.queryByRole("cell", { name: "override" })).toBeNull());
});

test("a rule opens with the house's value and reason, and asks for one", async () => {
  const { user } = open(<CorrectionFactorsPage />, { at: "/water/correction-factors" });
  await user.click(await screen.findByRole("button", { name: "Change spelt, not measured" }));
  const sheet = await screen.findByRole("dialog");
  expect(within(sheet).getByText(/House default −3 points, −5 to −1/)).toBeTruthy();
  expect(within(sheet).getByLabelText<HTMLInputElement>("Low").value).toBe("−5");
  await user.click(within(sheet).getByRole("button", { name: "Save plant value" }));
  expect(await within(sheet).findByText(/why does the plant's own differ/)).toBeTruthy();
  await user.keyboard("{Escape}");
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  expect(screen.getAllByRole("row")).toHaveLength(25);
});

test("who holds the water adds up for every lot, and feel dilutes the protein", async () => {
  open(<WaterDistributionPage />, {
    at: await inHand("/water/distribution", "deck-roll-60", "VR-26-1033"),
  });
  await computed();
  const table = await screen.findByRole("table", { name: "Shares of the dough's water" });
  await waitFor(() => expect(within(table).getAllByRole("columnheader")).toHaveLength(3));
  const shares = (column: number) =>
    within(table)
      .getAllByRole("row")
      .slice(1)
      .map((row) => parseFloat(row.querySelectorAll("td")[column]?.textContent ?? ""));
  const sum = (all: number[]) => all.reduce((one, other) => one + other, 0);
  expect(sum(shares(0))).toBeCloseTo(100, 0);
  expect(sum(shares(1))).toBeCloseTo(100, 0);
  const [protein = 0] = shares(0);
  fireEvent.change(screen.getByLabelText("Points on flour beyond the plan"), {
    target: { value: "5" },
  });
  await screen.findByRole("columnheader", { name: "VR-26-1033 with 5 by the operator" });
  await waitFor(() => expect(shares(2)[0]).toBeLessThan(protein));
  expect(sum(shares(2))).toBeCloseTo(100, 0);
  expect(screen.getByText(/damaged starch lets go of its water late/)).toBeTruthy();
});

test("a blend without gluten is told nothing of gluten", async () => {
  open(<WaterDistributionPage />, {
    at: await inHand("/water/distribution", "lantern-flats", "LB-26-0440"),
  });
  await computed();
  await screen.findByText(/This dough has no gluten/);
  expect(screen.queryByRole("slider")).toBeNull();
});

test("each grain of a mix has its own advice", async () => {
  open(<GrainsPage />, { at: await inHand("/water/grains", "rigg-spelt-500", "RS-26-0505") });
  await computed();
  const table = await screen.findByRole("table", { name: "Each grain of the dough" });
  const shares = within(table)
    .getAllByRole("row")
    .slice(1)
    .map((row) => value(numbers(row.querySelector("td")?.textContent)[0] ?? ""));
  expect(shares).toEqual([45, 30, 25]);
  expect(within(table).getByText(/two minutes too long and it runs/)).toBeTruthy();
  expect(screen.getByText("held back at first, 10 to 20 min")).toBeTruthy();
});

test("a lot is set beside others, at most three, and taken in hand", async () => {
  const { user } = open(<CompareProductLotsPage />, {
    at: await inHand("/water/compare", "deck-roll-60", "VR-26-1090"),
  });
  await computed();
  const table = await screen.findByRole("table", { name: "Dough by lot" });
  await waitFor(() => expect(within(table).getAllByRole("columnheader")).toHaveLength(3));
  const free = screen.getByLabelText<HTMLInputElement>(/VR-26-1033/);
  await user.click(free);
  await within(table).findByText(/damaged starch is 10.9 %/);
  expect(screen.getByLabelText<HTMLInputElement>(/VR-26-1040/).disabled, "three are enough").toBe(
    true,
  );
  const out = within(table).getByRole("columnheader", { name: /VR-26-1033/ });
  await user.click(within(out).getByRole("button", { name: "Select this lot" }));
  await computed();
  await waitFor(() =>
    expect(
      within(screen.getByRole("table", { name: "Dough by lot" }))
        .getAllByRole("columnheader")
        .map((head) => head.textContent?.slice(0, 10)),
    ).toEqual(["VR-26-1033", "VR-26-1098", "VR-26-1063", "VR-26-1090"]),
  );
});

test("what lots teach is set beside what was believed", async () => {
  open(<AbsorptionModelPage />, { at: "/water/absorption-model" });
  const table = await screen.findByRole("table", { name: "The model's coefficients" });
  for (const row of within(table).getAllByRole("row").slice(1)) {
    const [before, after, used] = [...row.querySelectorAll("td")].map((cell) => cell.textContent);
    const sd = (text: string | undefined) => Number(/± ([\d.]+)/.exec(text ?? "")?.[1]);
    expect(sd(after ?? ""), row.textContent).toBeLessThan(sd(before ?? ""));
    expect(used).toBe(before);
  }
  const farthest = screen.getByRole("table", { name: "Farthest off" });
  expect(within(farthest).getAllByRole("row")).toHaveLength(7);
  expect(screen.getByRole("button", { name: /^Learn from \d+ lots$/ })).toBeTruthy();
});
