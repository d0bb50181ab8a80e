import { screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { BakesPage } from "../src/oven/BakesPage";
import { open, place } from "./page";

const file = (text: string) => new File([text], "bake.csv", { type: "text/csv" });

test("bakes are listed by product, the slowest core's arrival with each", async () => {
  const { user } = open(<BakesPage />, { at: "/oven?of=ferry-tin-800" });
  const table = await screen.findByRole("table", { name: "Bakes with a trace" });
  const rows = within(table).getAllByRole("row").slice(1);
  expect(rows.length).toBeGreaterThan(20);
  for (const row of rows) expect(row.textContent).toMatch(/^Ferry Tin 800.*\d+\.\d %/);
  await user.selectOptions(screen.getByLabelText("Product"), "kesh-dark");
  await waitFor(() => expect(screen.getAllByText(/^Kesh Dark, /).length).toBeGreaterThan(2));
  expect(place.search.get("of")).toBe("kesh-dark");
});

test("a product that was never baked says what to do", async () => {
  open(<BakesPage />, { at: "/oven?of=lantern-flats" });
  expect(await screen.findByText(/No bake of it has a trace yet/)).toBeTruthy();
  expect(screen.getByText(/steam, hot vessels and trays burn/)).toBeTruthy();
});

test("a logger's file is taken apart, and a probe that fell out is named", async () => {
  const { user } = open(<BakesPage />, { at: "/oven?of=deck-roll-60" });
  const choose = await screen.findByLabelText("choose the file");
  await user.upload(choose, file("time,1,2\n0,28,28\n5,50,51\n10,70,210\n15,88,220\n18,95,230\n"));
  expect(await screen.findByText(/^1 probe, 5 samples/)).toBeTruthy();
  expect(screen.getByText(/2 read 210 °C at 10.0 min: it fell out of the loaf/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("Baked for").value).toMatch(/^\d.* min$/);
});

test("a file that names no unit and is too hot is asked about, and nothing is lost", async () => {
  const { user } = open(<BakesPage />, { at: "/oven?of=deck-roll-60" });
  const choose = await screen.findByLabelText("choose the file");
  await user.upload(choose, file("time,1\n0,82\n5,120\n10,160\n15,190\n18,203\n"));
  expect((await screen.findByRole("alert")).textContent).toContain("are they °F?");
  await user.click(screen.getByRole("button", { name: "They are °F" }));
  expect(await screen.findByText(/^1 probe, 5 samples/)).toBeTruthy();
});

test("what is no trace is told by its line", async () => {
  const { user } = open(<BakesPage />, { at: "/oven?of=deck-roll-60" });
  const choose = await screen.findByLabelText("choose the file");
  await user.upload(choose, file("time,1\n0,28\n5,50\n4,60\n"));
  expect((await screen.findByRole("alert")).textContent).toContain(
    "line 4: time goes back, from 5 to 4",
  );
  await user.upload(choose, file("dear baker\n"));
  await waitFor(() => expect(screen.getByRole("alert").textContent).toContain("not a bake trace"));
});
