import { screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { ConvertRecipePage } from "../src/dough/ConvertRecipePage";
import { IngredientsPage } from "../src/plant/IngredientsPage";
import { NewProductPage } from "../src/dough/NewProductPage";
import { RevisionsPage } from "../src/dough/RevisionsPage";
import { TrialsPage } from "../src/dough/TrialsPage";
import { FloorPage } from "../src/floor/FloorPage";
import { DoughTemperaturePage } from "../src/method/DoughTemperaturePage";
import { FermentationPage } from "../src/method/FermentationPage";
import { StartPage } from "../src/start/StartPage";
import { computed, inHand, open, place } from "./page";

test("a dough by amounts is understood line by line", async () => {
  const { user } = open(<ConvertRecipePage />, { at: "/dough/convert" });
  await waitFor(() =>
    expect(screen.getByLabelText<HTMLSelectElement>("Ingredient 1").options.length).toBeGreaterThan(
      20,
    ),
  );
  await user.type(screen.getByLabelText("Amount of ingredient 1"), "500 g");
  await user.type(screen.getByLabelText("Amount of ingredient 2"), "350 g");
  await user.type(screen.getByLabelText("Amount of ingredient 3"), "2 tsp");
  await user.type(screen.getByLabelText("Starter, if any"), "100 g");
  await user.click(screen.getByRole("button", { name: "Calculate" }));
  const read = await screen.findByRole("region", { name: "Result" });
  expect(read.textContent).toContain("72.7 %hydration");
  expect(within(read).getByRole("row", { name: /^flour/ }).textContent).toContain("90.91 %");
  expect(
    within(read).getByRole("row", { name: /^salt/ }).textContent,
    "a spoon has a range",
  ).toMatch(/10 g to 13 g/);
  expect(screen.getByText(/Select a product to carry this over/)).toBeTruthy();

  // What is typed is kept, and what was understood goes when it changes.
  await user.clear(screen.getByLabelText("Amount of ingredient 2"));
  await user.type(screen.getByLabelText("Amount of ingredient 2"), "lots");
  expect(screen.queryByRole("region", { name: "Result" })).toBeNull();
  await user.click(screen.getByRole("button", { name: "Calculate" }));
  await screen.findByText(/“lots”/);
  const kept = JSON.parse(localStorage.getItem("ironpeel.amounts") ?? "{}") as {
    lines: { amount: string }[];
  };
  expect(kept.lines.map((line) => line.amount)).toEqual(["500 g", "lots", "2 tsp"]);
});

test("amounts go into the product in hand as a formula with its starter", async () => {
  const { user } = open(<ConvertRecipePage />, {
    at: await inHand("/dough/convert", "causeway-stick", "VP-26-0435"),
  });
  await computed();
  await user.type(await screen.findByLabelText("Amount of ingredient 1"), "900 g");
  await user.type(screen.getByLabelText("Amount of ingredient 2"), "600 g");
  await user.type(screen.getByLabelText("Amount of ingredient 3"), "20 g");
  await user.type(screen.getByLabelText("Starter, if any"), "200 g");
  await user.click(screen.getByRole("button", { name: "Calculate" }));
  await user.click(await screen.findByRole("button", { name: /^Use in Causeway Stick/ }));
  expect(place.search.get("water"), "the water is the formula's own, not the address's").toBeNull();
  expect(place.scenario.draft?.hydration_pct).toBe(70);
  expect(place.scenario.draft?.batch_kg).toBeCloseTo(1.72, 6);
  expect(place.scenario.draft?.lines).toEqual([
    { ingredient: "flour", pct: 100 },
    { ingredient: "salt", pct: 2 },
  ]);
  expect(place.scenario.draft?.parts?.[0]).toMatchObject({
    kind: "starter",
    flour_pct: 10,
    water_pct: 10,
  });
});

test("the library names every ingredient, and one may be added or refused", async () => {
  const { user } = open(<IngredientsPage />, { at: "/plant/ingredients" });
  const table = await screen.findByRole("table", { name: "The library of ingredients" });
  await waitFor(() => expect(within(table).getAllByRole("row").length).toBeGreaterThanOrEqual(30));
  expect(within(table).getByRole("row", { name: /^psyllium/ }).textContent).toContain(
    "+6.00 (+4.00 to +8.00)",
  );
  expect(within(table).getByRole("row", { name: /^milk/ }).textContent).toContain("88 %");
  await user.click(screen.getByRole("button", { name: "Another ingredient" }));
  const sheet = await screen.findByRole("dialog");
  await user.click(within(sheet).getByRole("button", { name: "Save plant value" }));
  await within(sheet).findByText(/the ingredient needs a name/);
  await user.type(within(sheet).getByLabelText("Water in it, %"), "9{Enter}");
  await user.keyboard("{Escape}");
});

test("a template is offered with the flours that fit it", async () => {
  const { user } = open(<NewProductPage />, { at: "/dough/new" });
  const families = await screen.findByRole("list", { name: "Families" });
  await waitFor(() => expect(within(families).getAllByRole("button")).toHaveLength(9));
  const make = screen.getByRole("form", { name: "Make it" });
  const chosen = () =>
    within(make)
      .getAllByRole<HTMLSelectElement>("combobox")
      .map((select) => select.selectedOptions[0]?.textContent);
  await waitFor(() => expect(chosen()[0]).toBe("Tarn Strong"));
  await user.click(within(families).getByRole("button", { name: /^Spelt and emmer/ }));
  await waitFor(() =>
    expect(
      within(screen.getByRole("form", { name: "Make it" }))
        .getAllByRole<HTMLSelectElement>("combobox")
        .slice(0, 3)
        .map((select) => select.selectedOptions[0]?.textContent),
    ).toEqual(["Rigg Spelt", "Brae Emmer", "Tarn Strong"]),
  );
});

test("two products' formulas stand side by side, differences first", async () => {
  const { user } = open(<RevisionsPage />, {
    at: await inHand("/dough/revisions", "ferry-tin-short", "VR-26-1090"),
  });
  const other = await screen.findByLabelText<HTMLSelectElement>("Or beside another product");
  await waitFor(() => expect(other.options.length).toBeGreaterThan(8));
  await user.selectOptions(other, "ferry-tin-800");
  const table = await screen.findByRole("table", {
    name: /Ferry Tin 800 1 beside Ferry Tin Short/,
  });
  const rows = within(table).getAllByRole("row").slice(1);
  const delta = rows.map((row) => row.querySelectorAll("td")[2]?.textContent ?? "");
  const same = delta.findIndex((text) => text === "");
  expect(same).toBeGreaterThan(3);
  expect(delta.slice(same).every((text) => text === "")).toBe(true);
  expect(within(table).getByRole("row", { name: /^ascorbic acid/ }).textContent).toMatch(
    /\+0.0020/,
  );
  expect(screen.getByRole("link", { name: "Save as JSON" }).getAttribute("href")).toMatch(
    /\/file\/json$/,
  );
});

test("levers are offered for a wish, and set out side by side", async () => {
  const { user } = open(<TrialsPage />, {
    at: await inHand("/dough/trials", "causeway-stick", "VP-26-0435"),
  });
  await computed();
  const boxes = () => screen.getAllByRole("checkbox");
  await waitFor(() => expect(boxes().length).toBeGreaterThan(2));
  for (const box of boxes().slice(0, 2)) await user.click(box);
  const doughs = await screen.findByRole("table", { name: "The doughs of the trial" });
  expect(
    within(doughs)
      .getAllByRole("columnheader")
      .filter((head) => /^[A-D] /.test(head.textContent ?? "")),
  ).toHaveLength(4);
  const floor = within(doughs).getByRole("row", { name: /^water, all of it/ });
  const [plain = 0, wetter = 0] = [...floor.querySelectorAll("td")].map((cell) =>
    parseFloat(cell.textContent),
  );
  expect(wetter - plain).toBeCloseTo(3, 1);
  const each = screen.getByLabelText("Dough of each");
  await user.clear(each);
  await user.type(each, "0{Enter}");
  await screen.findByText(/dough of each must be from 0.1 to 100 kg/);
});

test("what sets the heat moves the water, and what cannot be says what could", async () => {
  const { user } = open(<DoughTemperaturePage />, {
    at: await inHand("/method", "ferry-tin-short", "VR-26-1090"),
  });
  await computed();
  const tap = await screen.findByLabelText("Tap water");
  await user.type(tap, "28{Enter}");
  expect(place.search.get("tap")).toBe("28");
  await screen.findByText(/Flake the ice/);
  await user.type(screen.getByLabelText("Flour temperature"), "35{Enter}");
  const target = screen.getByLabelText("Target dough temperature");
  await user.type(target, "8{Enter}");
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toMatch(/of the water as ice/);
  expect(alert.textContent).toMatch(/flour [\d.]+ °C cooler/);
  expect(target.getAttribute("aria-invalid")).toBe("true");
});

test("a dough is followed stage by stage, and yeast found for another rise", async () => {
  const { user } = open(<FermentationPage />, {
    at: await inHand("/method/fermentation", "ferry-tin-800", "VR-26-1090"),
  });
  await computed();
  const table = await screen.findByRole("table", { name: "The dough at the end of each stage" });
  expect(within(table).getAllByRole("row")).toHaveLength(9);
  const wanted = screen.getByLabelText("Rise");
  await user.type(wanted, "100{Enter}");
  await user.click(await screen.findByRole("button", { name: "Use in the formula" }));
  await waitFor(() => expect(place.scenario.draft).toBeDefined());
  const yeast =
    place.scenario.draft?.lines?.find((line) => line.ingredient === "instant_yeast")?.pct ?? 0;
  expect(yeast).toBeGreaterThan(0);
  expect(yeast).toBeLessThan(1.1);
  expect(
    place.scenario.draft?.parts?.[0]?.lines?.[0]?.pct,
    "all of it is the sponge's",
  ).toBeCloseTo(yeast, 4);
  await screen.findByText("+100 %", { selector: "span" });
});

test("the mixing sheet weighs its parts first and sums to the dough", async () => {
  open(<FloorPage />, { at: await inHand("/floor", "kesh-dark", "KR-26-0466") });
  await computed();
  const sheet = await screen.findByRole("article", { name: "Mixing sheet" });
  const before = within(sheet).getByRole("list", { name: "Preferments and soakers" });
  expect(within(before).getByText(/Let the scald cool below 35 °C/)).toBeTruthy();
  const masses = [...sheet.querySelectorAll("b.figure")].map((mass) => {
    const text = mass.textContent ?? "";
    return parseFloat(text) / (/\d\sg$/.test(text) ? 1000 : 1);
  });
  // Each part stands twice: as what it takes, and as what goes into the mixer.
  const parts = ["rye sour", "scald"].map((name) => {
    const found = within(sheet).getAllByText(name).at(-1)?.nextElementSibling?.textContent ?? "";
    return parseFloat(found);
  });
  const once = masses.reduce((sum, one) => sum + one, 0) - parts.reduce((sum, one) => sum + one, 0);
  expect(once).toBeCloseTo(20, 1);
  expect(within(sheet).getByText(/^Contains: cereals containing gluten/)).toBeTruthy();
});

test("the first page offers every product and a new one", async () => {
  open(<StartPage />, { at: "/" });
  await screen.findByRole("link", { name: /^Rigg Spelt 500/ });
  for (const name of ["Ferry Tin 800", "Kesh Dark", "Lantern Flats"])
    expect(screen.getAllByRole("link", { name: new RegExp(`^${name}`) })[0]).toBeTruthy();
  expect(screen.getByRole("link", { name: "A new product from a template" })).toBeTruthy();
});
