import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, link, pages, test } from "./plant";

const settled = (page: Page) => expect(link(page, "Floor")).toContainText("Mixing sheet");

/** Types into a field and leaves it. */
async function type(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press("Enter");
}

/** The percent that a link of the chain shows. */
async function percent(page: Page, name: string): Promise<number> {
  return parseFloat((await link(page, name).locator(".figure").textContent()) ?? "");
}

test("one dough stands on three lots, each difference explained", async ({ page }) => {
  await page.goto("/water/compare?product=deck-roll-60");
  await settled(page);
  const besides = page.getByRole("group", { name: /^Lots to compare/ });
  const checked = besides.getByRole("checkbox", { checked: true });
  await expect(checked).toHaveCount(2);
  for (let left = 2; left > 0; left--) await checked.first().uncheck();
  for (const code of ["VR-26-1063", "VR-26-1090", "VR-26-1033"])
    await besides.getByLabel(code).check();
  const table = page.getByRole("table", { name: "Dough by lot" });
  await expect(table.getByRole("columnheader")).toHaveCount(4);
  await expect(table).toContainText("farinograph absorption on 14 %");
  await expect(table).toContainText("damaged starch is 10.9 %");
  await table
    .getByRole("columnheader", { name: /VR-26-1090/ })
    .getByRole("button", { name: "Select this lot" })
    .click();
  await expect(link(page, "Flour")).toContainText("VR-26-1090");
  await expect(link(page, "Water")).toContainText("58.5 %");
});

test("a whole-grain dough takes its water from a lot without a curve", async ({ page }) => {
  await page.goto("/water?product=holm-tin");
  await settled(page);
  await expect(page.getByText("No curve of this flour")).toBeVisible();
  await expect(page.getByRole("cell", { name: /^estimated absorption/ })).toBeVisible();
  await expect(page.getByRole("cell", { name: /^whole grain/ })).toBeVisible();
  await expect(page.getByText("bran drinks slowly")).toBeVisible();
  await page.getByRole("link", { name: "see what the estimate rests on" }).click();
  await expect(page.getByRole("heading", { name: "Absorption model" })).toBeVisible();
  await expect(page.getByRole("row", { name: /per point of damaged starch/ })).toContainText(
    "1.40 ± 0.40",
  );
});

test("a mix of spelt, emmer and wheat behaves by its parts and has a lot of each", async ({
  page,
}) => {
  await page.goto("/dough?product=rigg-spelt-500");
  await settled(page);
  const water = await percent(page, "Water");
  await expect(page.getByLabel("Lot of Brae Emmer")).toBeVisible();
  await type(page, "Rigg Spelt, percent on flour", "60");
  await expect(page.getByLabel("Brae Emmer, percent on flour", { exact: true })).toHaveValue(
    "10 %",
  );
  await expect.poll(() => percent(page, "Water")).not.toBe(water);
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(page.getByLabel("Rigg Spelt, percent on flour", { exact: true })).toHaveValue(
    "45 %",
  );
  await page.goto("/water/grains?product=rigg-spelt-500");
  await expect(page.getByRole("row", { name: /^emmer/ })).toContainText("bake in a tin");
  await expect(page.getByRole("row", { name: /^spelt/ })).toContainText("45 %");
  await expect(page.getByText("held back at first")).toBeVisible();
});

test("a dough fed by feel shows who holds the water", async ({ page }) => {
  await page.goto("/water/distribution?product=deck-roll-60");
  await settled(page);
  await page.getByLabel("Selected lot").selectOption({ label: "VR-26-1033 ✕ out, held" });
  await expect(page.getByText("This lot feels dry at the mixer")).toBeVisible();
  const slider = page.getByLabel("Points on flour beyond the plan");
  await slider.fill("3");
  await expect(
    page.getByText("divider, rounder and moulder stick", { exact: false }),
  ).toBeVisible();
  await expect(page.getByText("smeared slicer blades")).toBeVisible();
  await expect(page.getByText("aim for arrival at 80 % of the bake")).toBeVisible();
  await expect(
    page.getByRole("columnheader", { name: "VR-26-1033 with 3 by the operator" }),
  ).toBeVisible();
});

test("a sour by cups and as prefermented flour is the same dough within its doubt", async ({
  page,
}) => {
  await page.goto("/dough/convert?product=holm-tin");
  await settled(page);
  await page.getByLabel("Amount of ingredient 1").fill("4 cup");
  await page.getByLabel("Amount of ingredient 2").fill("1 2/3 cup");
  await page.getByLabel("Amount of ingredient 3").fill("2 tsp");
  await page.getByLabel("Flour 1").selectOption("Kesh Rye");
  await page.getByLabel("Starter, if any").fill("a jar");
  await page.getByRole("button", { name: "Calculate" }).click();
  await expect(page.getByText("“jar” is no unit", { exact: false })).toBeVisible();
  await page.getByLabel("Flour 1").selectOption("the product's");
  await page.getByLabel("Starter, if any").fill("3/4 cup");
  await page.getByRole("button", { name: "Calculate" }).click();
  const read = page.getByRole("region", { name: "Result" });
  const band = /likely ([\d.]+) to (\d+\.\d)/.exec((await read.textContent()) ?? "");
  const fermented = /its flour, of all flour([\d.]+)/.exec((await read.textContent()) ?? "");
  await page.getByRole("button", { name: "Use in Holm Tin" }).click();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  const inStarter = page.getByLabel("flour in the starter, percent on all flour");
  const prefermented = parseFloat(await inStarter.inputValue());
  expect(prefermented).toBeCloseTo(Number(fermented?.[1]), 1);
  await settled(page);
  const cups = await percent(page, "Water");
  expect(cups).toBeGreaterThan(Number(band?.[1]));
  expect(cups).toBeLessThan(Number(band?.[2]));

  // The same starter, stated as prefermented flour, is where it was.
  await page.getByLabel("How the starter is stated").selectOption("its flour, of all flour");
  await type(page, "Share", String(prefermented));
  await expect.poll(() => percent(page, "Water")).toBe(cups);
  await type(page, "Hydration", "60");
  await expect(page.getByText("% of the flour, hydration 60 %")).toBeVisible();
  await page.keyboard.press("Control+z");
});

test("parts are split off, moved and put back, and each column adds up", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await settled(page);
  await page.getByLabel("Add preferment or soaker").selectOption("Sponge");
  await expect(page.getByRole("columnheader", { name: "sponge" })).toBeVisible();
  await type(page, "flour in the sponge, percent on all flour", "50");
  await type(page, "water in the sponge, percent on all flour", "30");
  await settled(page);
  await expect(page.getByRole("row", { name: /^flour/ })).toContainText("50.00 %");
  await expect(page.getByRole("row", { name: /^total/ })).toContainText("80.00 %");
  await type(page, "water in the sponge, percent on all flour", "90");
  await expect(page.getByRole("alert").first()).toContainText(
    "make them drier or the dough wetter",
  );
  await page.keyboard.press("Escape");
  await type(page, "water in the sponge, percent on all flour", "30");
  await type(page, "salt in the sponge, percent on all flour", "5");
  await expect(page.getByText("raise it in the whole dough first")).toBeVisible();
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(page.getByRole("columnheader", { name: "sponge" })).toBeHidden();
});

test("one mass is changed while the dough stays as large", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await settled(page);
  await page.getByLabel("Ingredient", { exact: true }).selectOption("salt");
  await page.getByLabel("Keep constant").selectOption("the dough");
  await type(page, "New weight, one batch", "4 kg");
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  await expect(page.getByRole("row", { name: /^salt/ })).toContainText("4.00 kg");
  await expect(link(page, "Dough")).toContainText("160.0 kg");
  await page.locator("h1").click();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Edited, not saved")).toBeHidden();
});

test("a dough is scaled back from good baked loaves and from the flour there is", async ({
  page,
}) => {
  await page.goto("/dough?product=ferry-tin-short");
  await settled(page);
  await page.getByRole("radio", { name: "baked" }).click();
  await type(page, "Good baked pieces wanted", "400");
  await type(page, "Each weighing, when cool", "800 g");
  await expect(page).toHaveURL(/baked=400/);
  await expect(page.getByText("about 800 g when cool")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Each weighing, when cool")).toHaveValue("800 g");
  await page.getByRole("radio", { name: "flour", exact: true }).click();
  await type(page, "Flour there is, all of it", "200 kg");
  await expect(page.getByRole("row", { name: /^flour/ })).toContainText("200.00 kg");
});

test("a trial of levers is set out side by side, kept and printed on one page", async ({
  page,
}) => {
  await page.goto("/dough/trials?product=causeway-stick");
  await settled(page);
  await page.getByRole("button", { name: "less sticky" }).click();
  const levers = page.getByRole("table", { name: "Changes with their effects" });
  await expect(levers.getByRole("row").nth(1)).toBeVisible();
  await page.getByRole("button", { name: "a more open crumb" }).click();
  await page.getByLabel("Try 3 points more water").check();
  await page.getByLabel("Try one more set of folds").check();
  const doughs = page.getByRole("table", { name: "The doughs of the trial" });
  await expect(doughs.getByRole("columnheader", { name: "D all changes" })).toBeVisible();
  await type(page, "Dough of each", "2 kg");
  await expect(doughs).toContainText("2.000 kg of each");
  await page.getByRole("button", { name: "Save trial" }).click();
  await expect(page.getByRole("heading", { name: "Trial of Causeway Stick" })).toBeVisible();
  expect(pages(await page.pdf({ format: "A4" }))).toBe(1);
  await page.getByRole("link", { name: "Another trial" }).click();
  await expect(page.getByRole("link", { name: "Causeway Stick" }).last()).toBeVisible();
});

test("a gluten-free dough is given no gluten advice, and its caution", async ({ page }) => {
  await page.goto("/dough?product=lantern-flats");
  await settled(page);
  await expect(page.getByText("Made without gluten is not gluten-free")).toBeVisible();
  await page.goto("/dough/trials?product=lantern-flats");
  for (const goal of ["a stronger dough", "less sticky", "a more open crumb"]) {
    await page.getByRole("button", { name: goal }).click();
    const none = page.getByText("No lever of the trade does that");
    await expect(none.or(page.getByRole("columnheader", { name: "handling" }))).toBeVisible();
    const main = (await page.locator("main").textContent()) ?? "";
    expect(main).not.toMatch(/vital gluten|autolyse|gluten film/i);
  }
  await page.goto("/water/distribution?product=lantern-flats");
  await expect(page.getByText("This dough has no gluten")).toBeVisible();
  await page.goto("/water/grains?product=lantern-flats");
  await expect(page.getByText("mixing, beside white wheat")).toBeHidden();
  await page.goto("/floor?product=lantern-flats");
  await expect(page.getByText("Made without gluten is not gluten-free")).toBeVisible();
});

// The plant's numbers are one document: two who change it at once are told so.
test.describe.serial("the plant's own numbers", () => {
  test("a rule of the stair is the plant's own with its reason, and goes back", async ({
    page,
  }) => {
    await page.goto("/water/correction-factors");
    await page.getByRole("button", { name: "Change rye, not measured" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("Here, points").fill("30");
    await dialog.getByLabel("Here, points").press("Tab");
    await dialog.getByRole("button", { name: "Save plant value" }).click();
    await expect(dialog.getByText("why", { exact: false }).last()).toBeVisible();
    await dialog.getByLabel("Here, points").fill("9");
    await dialog.getByLabel("Here, points").press("Tab");
    await dialog.getByLabel("Reason for the plant value").fill("twelve doughs of Kesh Dark");
    await dialog.getByRole("button", { name: "Save plant value" }).click();
    const row = page.getByRole("row", { name: /^rye, not measured/ });
    await expect(row).toContainText("9 (4 to 12)");
    await expect(row).toContainText("twelve doughs of Kesh Dark");

    await page.goto("/water?product=kesh-dark");
    await settled(page);
    await expect(page.getByRole("row", { name: /^rye, not measured/ })).toContainText(
      "this plant's own",
    );
    await page.getByRole("button", { name: "Change the factor of rye, not measured" }).click();
    await dialog.getByRole("button", { name: "Reset to default" }).click();
    await expect(dialog).toBeHidden();
    await expect(page.getByRole("row", { name: /^rye, not measured/ })).toContainText(
      "house default",
    );
  });

  test("a coefficient is found, put by the plant's own with its reason, reaches the rise, and goes back", async ({
    page,
  }) => {
    await page.goto("/method/fermentation?product=ferry-tin-800");
    const rise = page.getByRole("row").filter({ hasText: /proof/i }).first();
    await expect(rise).toBeVisible();
    const before = await rise.innerText();
    await page.goto("/plant/coefficients?product=ferry-tin-800");
    await page.getByLabel("Search coefficients").fill("instant yeast");
    await expect(page).toHaveURL(/q=instant/);
    const row = page.getByRole("row", { name: /^gas of 1 % instant yeast/ });
    await row.getByRole("button").click();
    const dialog = page.getByRole("dialog");
    await expect(dialog).toContainText("House default 2.22 ml/g·h, 1.8 to 2.7");
    await dialog.getByLabel("Here, ml/g·h").fill("1.9");
    await dialog.getByLabel("Here, ml/g·h").press("Tab");
    await dialog.getByLabel("Reason for the plant value").fill("a year of jars");
    await dialog.getByRole("button", { name: "Save plant value" }).click();
    await expect(row).toContainText("a year of jars");
    await page.getByLabel("Only plant values").check();
    await expect(page.getByRole("table", { name: "Coefficients" }).getByRole("row")).toHaveCount(2);

    await page.goto("/method/fermentation?product=ferry-tin-800");
    await expect.poll(() => rise.innerText()).not.toBe(before);
    await page.goto("/plant/coefficients?own=yes");
    await row.getByRole("button").click();
    await dialog.getByRole("button", { name: "Reset to default" }).click();
    await expect(dialog).toBeHidden();
    await page.goto("/method/fermentation?product=ferry-tin-800");
    await expect.poll(() => rise.innerText()).toBe(before);
  });

  test("an ingredient of the plant's own goes into a dough and out of the library", async ({
    page,
  }) => {
    await page.goto("/plant/ingredients");
    await page.getByRole("button", { name: "Another ingredient" }).click();
    const dialog = page.getByRole("dialog");
    await dialog.getByLabel("Name", { exact: true }).fill("kelp meal");
    await dialog.getByLabel("Points of water for 1 %").fill("1.5");
    await dialog.getByLabel("Price of a kilo").fill("12");
    await dialog.getByLabel("They are stated; none but those named here").check();
    await dialog.getByLabel("mustard").selectOption("contains");
    await dialog.getByLabel("Reason for the plant value").fill("from the shore");
    await dialog.getByRole("button", { name: "Save plant value" }).click();
    await expect(page.getByRole("row", { name: /^kelp meal/ })).toContainText("mustard");

    await page.goto("/dough?product=ebb-flats-240");
    await settled(page);
    const water = await percent(page, "Water");
    await page.getByLabel("Add an ingredient").selectOption("kelp meal");
    await type(page, "kelp meal, percent on flour", "2");
    await expect.poll(() => percent(page, "Water")).toBeCloseTo(water + 3, 1);
    await expect(page.getByText(/Contains: .*mustard/)).toBeVisible();
    await page.getByRole("button", { name: "Take kelp meal out" }).click();
    await expect.poll(() => percent(page, "Water")).toBeCloseTo(water, 1);
  });
});

test("milk comes cold from the refrigerator, and as cold as it is typed", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await settled(page);
  await page.getByLabel("Add an ingredient").selectOption("milk");
  await type(page, "milk, percent on flour", "30");
  await settled(page);
  await link(page, "Method").click();
  const milk = page.getByLabel("milk, from the refrigerator");
  await expect(milk).toHaveAttribute("placeholder", "4.0 °C");
  const water = async () => /water [^\n]*C/.exec(await link(page, "Method").innerText())?.[0];
  const cold = await water();
  await milk.fill("18");
  await milk.press("Enter");
  await expect(page).toHaveURL(/cold=milk%3A18/);
  await expect.poll(water, "warmer milk asks for colder water").not.toBe(cold);
  await milk.fill("");
  await milk.press("Enter");
  await expect.poll(water).toBe(cold);
});

test("a product is made from a template, revised, compared, saved and taken back", async ({
  page,
}) => {
  await page.goto("/dough/new");
  await page.getByRole("button", { name: /^Hearth loaf/ }).click();
  const make = page.getByRole("form", { name: "Make it" });
  await make.getByRole("button", { name: "Make the product" }).click();
  await expect(page.getByText("the product needs a name", { exact: false })).toBeVisible();
  await make.getByLabel("Its name here").fill("Gull Loaf");
  await make.getByRole("button", { name: "Make the product" }).click();
  await expect(page.getByRole("heading", { name: "Gull Loaf" })).toBeVisible();
  await settled(page);

  await type(page, "salt, percent on flour", "2.2");
  await page.getByLabel("Why", { exact: true }).fill("for the summer");
  await page.getByRole("button", { name: "Save revision 2" }).click();
  await expect(page.getByText("Revision 2,")).toBeVisible();

  await page.getByRole("link", { name: "Revisions and files" }).click();
  const first = page.getByRole("table", { name: /Gull Loaf 1 beside Gull Loaf 2/ });
  await expect(first.getByRole("row").nth(1)).toContainText("salt");
  const saved = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save as CSV" }).click();
  const csv = await readFile(await (await saved).path(), "utf8");
  expect(csv).toContain("whole,salt,2.2,% on flour");
  await page.getByLabel(/Import a formula file/).setInputFiles({
    name: "gull.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(csv.replace("whole,salt,2.2", "whole,salt,1.7")),
  });
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  await expect(page.getByLabel("salt, percent on flour", { exact: true })).toHaveValue("1.7 %");
  await page.goto("/dough/revisions?product=gull-loaf");
  await page.getByLabel(/Import a formula file/).setInputFiles({
    name: "no.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("dear baker"),
  });
  await expect(page.getByRole("alert")).toContainText("names its columns: stage, item, value");
});

test("a formula edited before its flour was renamed is edited on under the new name", async ({
  page,
}) => {
  await page.route("**/api/v1/flour-names", (route) =>
    route.fulfill({ json: { "Kesh Old Rye": "Kesh Rye" } }),
  );
  const product = await (await page.request.get("/api/v1/products/kesh-dark")).json();
  const { lines, flours, parts } = product.formula;
  const named = (name: string) => (name === "Kesh Rye" ? "Kesh Old Rye" : name);
  const draft = {
    lines,
    flours: flours.map((one: { name: string }) => ({ ...one, name: named(one.name) })),
    parts: parts.map((one: { flour?: string }) => ({
      ...one,
      flour: one.flour && named(one.flour),
    })),
    style_points: product.formula.style_points + 1,
  };
  expect(JSON.stringify(draft)).toContain("Kesh Old Rye");
  await page.addInitScript(
    (kept) => localStorage.setItem("ironpeel.formula-draft.2.kesh-dark", kept),
    JSON.stringify(draft),
  );
  await page.goto("/dough?product=kesh-dark");
  await settled(page);
  await expect(page.getByLabel("Kesh Rye, percent on flour", { exact: true })).toBeVisible();
  await expect(page.getByRole("button", { name: "Discard" })).toBeVisible();
});

test("a piece is found from its tin, and the tin of a piece", async ({ page }) => {
  await page.goto("/dough?product=ferry-tin-800");
  await page.getByText("Piece", { exact: true }).click();
  const form = page.getByRole("form", { name: "Piece by tin or disc" });
  await form.getByRole("button", { name: "Piece that fills it" }).click();
  await expect(form.getByText(/volume of the tin/)).toBeVisible();
  await form.getByLabel("Form").selectOption("a tin, by its sides");
  for (const [side, cm] of [
    ["Length, cm", "22"],
    ["Width, cm", "11"],
    ["Height, cm", "9"],
  ] as const) {
    await form.getByLabel(side).fill(cm);
    await form.getByLabel(side).press("Tab");
  }
  await form.getByRole("button", { name: "Piece that fills it" }).click();
  await expect(form.getByRole("status")).toContainText("915 g");
  await form.getByRole("button", { name: "Scale at it" }).click();
  await expect(page.getByLabel("Scaled at")).toHaveValue("915 g");
  await form.getByLabel("Form").selectOption("a disc");
  await form.getByLabel("Thickness, mm").fill("4");
  await form.getByLabel("Thickness, mm").press("Tab");
  await form.getByRole("button", { name: /^Diameter of/ }).click();
  await expect(form.getByRole("status")).toContainText("cm across");
});
