import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { expect, link, test } from "./plant";

/** A dough as bakers saw it. */
interface Dough {
  name: string;
  grams?: Record<string, number>;
  kilograms?: Record<string, number>;
  dough_c: number;
  room_c: number | [number, number][];
  rise_pct?: number;
  event?: "drop";
  hours?: [number, number];
  at_h?: number;
  rise_between_pct?: [number, number];
}

const path = "../crates/core/tests/all/samples/doughs.json";
const DOUGHS = JSON.parse(readFileSync(path, "utf8")) as Dough[];
/** A name of this run's own: another may have left its doughs there. */
const run = Date.now().toString(36).slice(-5);
const named = (name: string): Dough => {
  const dough = DOUGHS.find((one) => one.name === name);
  if (!dough) throw new Error(`no dough is called ${name}`);
  return { ...dough, name: `${name} ${run}` };
};

/** What a dough is made of, as somebody types it. */
interface Recipe {
  flour: {
    species?: string;
    type?: string;
    whole?: boolean;
    protein?: number;
    w?: number;
  };
  /** Each ingredient by its word, grams. */
  lines: [string, number][];
  starter?: number;
}

function recipe({ grams, kilograms }: Dough): Recipe {
  const masses = Object.entries(grams ?? kilograms ?? {});
  const unit = grams ? 1 : 1000;
  const flour = masses.find(([word]) => word.includes("flour"))?.[0] ?? "";
  const number = (pattern: RegExp) => {
    const found = pattern.exec(flour)?.[1];
    return found === undefined ? undefined : Number(found);
  };
  const word = (of: string) =>
    of.includes("flour") ? "flour" : of === "instant yeast" ? "instant yeast" : of;
  const starter = masses.find(([of]) => /starter|sour/.test(of))?.[1];
  return {
    flour: {
      ...(flour.includes("rye") && { species: "rye", type: "DE 1370" }),
      ...(flour.includes("whole") && { whole: true }),
      ...(number(/([\d.]+) %/) && { protein: number(/([\d.]+) %/) }),
      ...(number(/W (\d+)/) && { w: number(/W (\d+)/) }),
    },
    lines: masses
      .filter(([of]) => !/starter|sour/.test(of))
      .map(([of, mass]) => [word(of), mass * unit]),
    ...(starter !== undefined && { starter: starter * unit }),
  };
}

const fill = async (page: Page, label: string, text: string) => {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.blur();
};

/** A bag of flour and a recipe card become a product on the bench. */
async function enter(page: Page, dough: Dough, family: RegExp) {
  const { flour, lines, starter } = recipe(dough);
  const bag = `Bag for ${dough.name}`;
  await page.goto("/flour/bag?for=product");
  await page.getByLabel("Its name here").fill(bag);
  if (flour.species) await page.getByLabel("Grain", { exact: true }).selectOption(flour.species);
  if (flour.type) await page.getByLabel("Type number").selectOption(flour.type);
  if (flour.protein) await fill(page, "Protein, g in 100 g", String(flour.protein));
  if (flour.w) await fill(page, "W, 10⁻⁴ J", String(flour.w));
  if (flour.whole) await page.getByLabel("whole grain").check();
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(page.getByRole("heading", { name: "A new product" })).toBeVisible();
  await page.getByRole("button", { name: family }).click();
  await page.getByLabel("Its name here").fill(dough.name);
  for (const wanted of await page.getByLabel(/^For /).all()) await wanted.selectOption(bag);
  await page.getByLabel("On line").selectOption(dough.grams ? "Bench" : "Line 1");
  await page.getByRole("button", { name: "Make the product" }).click();
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const slug = new URL(page.url()).searchParams.get("product") ?? "";
  await page.goto(`/dough/convert?product=${slug}`);
  await expect(page.getByLabel("Amount of ingredient 3")).toBeVisible();
  for (const [at, [word, grams]] of lines.entries()) {
    if (at > 2) await page.getByRole("button", { name: "Another ingredient" }).click();
    await page.getByLabel(`Ingredient ${at + 1}`, { exact: true }).selectOption(word);
    await page.getByLabel(`Amount of ingredient ${at + 1}`).fill(`${grams} g`);
  }
  if (starter) await page.getByLabel("Starter, if any").fill(`${starter} g`);
  await page.getByRole("button", { name: "Calculate" }).click();
  await page.getByRole("button", { name: `Use in ${dough.name}` }).click();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  return slug;
}

/** Opens a stage of the product, after setting how warm the dough comes off the mixer. */
async function open(page: Page, slug: string, label: string, dough: Dough) {
  await page.goto(`/method/stages?product=${slug}`);
  await fill(page, "Off the mixer", String(dough.dough_c));
  await page.getByRole("button", { name: `Change ${label}` }).click();
}

/** The room of the stage that is open, changing or not. */
async function room(page: Page, celsius: Dough["room_c"]) {
  const [[, begins], ...later] = typeof celsius === "number" ? [[0, celsius] as const] : celsius;
  await fill(page, "Ambient", String(begins));
  const curve = page.getByRole("group", { name: "Ambient as it changes" });
  for (const [at, [after_h, then]] of later.entries()) {
    await curve.getByRole("button", { name: "Add a point" }).click();
    for (const [field, text] of [
      ["Into the stage", `${after_h} h`],
      ["Ambient", String(then)],
    ] as const) {
      const input = curve.getByLabel(field, { exact: true }).nth(at);
      await input.fill(text);
      await input.press("Enter");
    }
  }
}

/** What the stage that is open ends at. */
async function endsAt(page: Page, { event, rise_pct }: Dough) {
  await page.getByLabel("End point", { exact: true }).selectOption(event ?? "rise");
  if (rise_pct) await fill(page, "Ends at a rise of", String(rise_pct));
  await expect(page.getByText(/Predicted after/).first()).toBeVisible();
}

/** When a stage is predicted to end, h after it begins. */
async function predicted(page: Page, label: string) {
  const ends = page.getByRole("region", { name: "Stage ends" });
  const row = ends.getByRole("row", { name: new RegExp(`^${label}`) });
  await expect(row).toBeVisible();
  return hours(await row.getByRole("cell").last().innerText());
}

/** The first time in a text, in hours. */
function hours(text: string) {
  const [, h, min, alone] = /(?:(\d+) h (\d+)|([\d.]+) min)/.exec(text) ?? [];
  return h === undefined ? Number(alone) / 60 : Number(h) + Number(min) / 60;
}

/** A reading of a jar, and tonight goes by it. */
async function read(page: Page, minutes: number, rise_pct: number) {
  const readings = page.getByRole("region", { name: "Tonight's readings" });
  await readings.getByLabel("After, min").fill(String(Math.round(minutes)));
  await readings.getByLabel("Risen").fill(String(rise_pct));
  await readings.getByRole("button", { name: "Add" }).click();
  const again = page.waitForResponse("**/api/v1/chain/fermentation");
  await readings.getByRole("button", { name: "Go by it" }).click();
  await again;
  await expect(page).toHaveURL(/rate=/);
}

const isWithin = (found: number, [from, to]: [number, number]) => {
  expect(found).toBeGreaterThanOrEqual(from);
  expect(found).toBeLessThanOrEqual(to);
};

/** Each mass that was typed stands on the sheet. */
async function printed(page: Page, slug: string, dough: Dough) {
  await page.goto(`/floor?product=${slug}`);
  const sheet = page.getByRole("main");
  await expect(sheet).toContainText("dough");
  const { lines, starter } = recipe(dough);
  const text = (await sheet.innerText()).replace(/\s+/g, " ");
  for (const [word, grams] of [...lines, ...(starter ? [["starter", starter] as const] : [])]) {
    if (word === "water") {
      // What a preparation takes stands above the steps.
      const steps = (await sheet.locator("ol").innerText()).replace(/\s+/g, " ");
      const water = /(?:water(?: held back)?, [\d.]+ °C|ice) ([\d.]+) (k?)g/g;
      const goes = [...steps.matchAll(water)];
      const all = goes.reduce((sum, [, mass, kilo]) => sum + Number(mass) * (kilo ? 1000 : 1), 0);
      expect(Math.abs(all - grams), "water and ice").toBeLessThanOrEqual(grams / 500);
      continue;
    }
    const [figure, unit] = grams < 1000 ? [grams, "g"] : [grams / 1000, "kg"];
    const shown = `${figure}`.replace(".", "\\.") + (Number.isInteger(figure) ? "(\\.0+)?" : "0*");
    expect(text, `${word} of ${figure} ${unit}`).toMatch(new RegExp(`\\b${shown} ${unit}`));
  }
}

for (const name of [
  "Lanterngate hearth",
  "Saltpans slow tin",
  "Night bench",
  "Weir sour",
  "Mallow whole sour",
  "Quay sponge",
  "Peat rye",
  "Jar on the shelf",
]) {
  test(`${name} is entered from its bag and its card, and ready when it was seen`, async ({
    page,
  }) => {
    const dough = named(name);
    const window = dough.hours ?? [0, 0];
    const slug = await enter(page, dough, /^Soft roll, no-time/);
    await open(page, slug, "Floor time", dough);
    await room(page, dough.room_c);
    await endsAt(page, dough);
    await page.goto(`/method/fermentation?product=${slug}`);
    isWithin(await predicted(page, "Floor time"), window);
    await page.getByRole("button", { name: "Use the predicted times" }).click();
    await expect(page.getByRole("button", { name: "Use the predicted times" })).toBeHidden();
    if (dough.rise_pct) {
      await read(page, (0.6 * 60 * (window[0] + window[1])) / 2, dough.rise_pct / 2);
      isWithin(await predicted(page, "Floor time"), window);
    }
    await printed(page, slug, dough);
  });
}

test("Tollgate rolls are three times their size at the oven", async ({ page }) => {
  const dough = named("Tollgate rolls");
  const slug = await enter(page, dough, /^Soft roll, no-time/);
  await open(page, slug, "Floor time", dough);
  await fill(page, "Lasts", "12 min");
  await room(page, 26);
  await page.getByRole("button", { name: "Change Final proof" }).click();
  await room(page, 35);
  await endsAt(page, dough);
  await page.goto(`/method/fermentation?product=${slug}`);
  // Twelve minutes of floor time and as many at the divider come before.
  isWithin(0.4 + (await predicted(page, "Final proof")), dough.hours ?? [0, 0]);
  await printed(page, slug, dough);
});

test("Ebb balls have risen by half to all of it after a day in the cold", async ({ page }) => {
  const dough = named("Ebb balls");
  const slug = await enter(page, dough, /^Ball dough for flat bread/);
  await open(page, slug, "Rest", dough);
  await fill(page, "Lasts", "105 min");
  await room(page, 22);
  await page.getByRole("button", { name: "Change In boxes in the cold" }).click();
  await fill(page, "At least", "20 h");
  await fill(page, "Lasts", "24 h");
  await room(page, 4);
  await page.goto(`/method/fermentation?product=${slug}`);
  const table = page.getByRole("table", { name: "The dough at the end of each stage" });
  const row = table.getByRole("row", { name: /^In boxes in the cold/ });
  await expect(row).toContainText(/2[67] h/);
  const rise = Number(/\+([\d.]+) %/.exec(await row.innerText())?.[1]);
  isWithin(rise, dough.rise_between_pct ?? [0, 0]);
  await printed(page, slug, dough);
});

test("a newcomer has a sheet from a bag and a card in cups", async ({ page }) => {
  await page.goto("/flour/bag?for=product");
  await page.getByLabel("Its name here").fill(`Corner white ${run}`);
  await page.getByLabel("Type number").selectOption("DE 550");
  await expect(page.getByText("usual ash 0.57 %")).toBeVisible();
  await page.getByRole("button", { name: "Save flour" }).click();
  await page.getByRole("button", { name: /^Hearth loaf/ }).click();
  await page.getByLabel("Its name here").fill(`Corner loaf ${run}`);
  await page.getByLabel(/^For /).selectOption(`Corner white ${run}`);
  await page.getByLabel("On line").selectOption("Bench");
  await page.getByRole("button", { name: "Make the product" }).click();
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const slug = new URL(page.url()).searchParams.get("product") ?? "";
  await link(page, "Water").click();
  await expect(page.getByText(/taken as usual \(H\): moisture 14 %/)).toBeVisible();
  await page.goto(`/dough/convert?product=${slug}`);
  for (const [at, amount] of ["4 cups", "1 2/3 cup", "2 tsp"].entries()) {
    await page.getByLabel(`Amount of ingredient ${at + 1}`).fill(amount);
  }
  await page.getByRole("button", { name: "Another ingredient" }).click();
  await page.getByLabel("Ingredient 4", { exact: true }).selectOption("instant yeast");
  await page.getByLabel("Amount of ingredient 4").fill("1/4 tsp");
  await page.getByRole("button", { name: "Calculate" }).click();
  await page.getByRole("button", { name: /^Use in Corner loaf/ }).click();
  await link(page, "Floor").click();
  const sheet = page.getByRole("article", { name: "Mixing sheet" });
  await expect(sheet).toContainText("no specification");
  await expect(sheet).toContainText(/Or stir 10 g of instant yeast into \d+ g of water and take/);
});
