import { expect, link, test } from "./plant";

test("a dough is followed to the oven, and its yeast set for another rise", async ({ page }) => {
  await page.goto("/method/rise?product=deck-roll-60");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  await expect(page.getByText("where it meets the oven")).toBeVisible();
  await expect(page.getByRole("row", { name: /^Final proof/ })).toContainText("32 °C");
  const seasons = page.getByRole("table", { name: "Instant yeast by room temperature" });
  await expect(seasons.getByRole("row")).toHaveCount(11);

  const wanted = page.getByLabel("Rise at the oven");
  await wanted.fill("9000");
  await wanted.press("Enter");
  await expect(page.getByText("rise at the oven must be from 1 to 1000 %")).toBeVisible();
  await wanted.fill("900");
  await wanted.press("Enter");
  await expect(page.getByText("does not bring it there")).toBeVisible();
  await wanted.fill("150");
  await wanted.press("Enter");
  await page.getByRole("button", { name: "Take it into the formula" }).click();
  await expect(page.getByText("+150 %").first()).toBeVisible();
  await link(page, "Dough").click();
  await expect(page.getByText("Edited and not recorded")).toBeVisible();
});

test("a sponge is seen before the dough, a sour tells by its jar", async ({ page }) => {
  await page.goto("/method/rise?product=ferry-tin-800");
  await expect(page.getByText("the sponge after 3 h 30, set at 24.0 °C")).toBeVisible();
  await page.goto("/method/rise?product=holm-tin");
  await expect(page.getByText("of the flour in the sour")).toBeVisible();
  const jar = page.getByRole("region", { name: "A sample jar tells" });
  await expect(jar).toContainText("+50 %5 h");
  await expect(page.getByText("Yeast for another rise")).toBeHidden();
});

test("a dough is put on the clock around the night, and saved as a calendar", async ({ page }) => {
  await page.goto("/method/day?product=causeway-stick");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const stages = page.getByRole("table", { name: "The stages with their hours" });
  await expect(stages.getByRole("row", { name: /Bake/ })).toBeVisible();
  await expect(page.getByText("out of the oven", { exact: true })).toBeVisible();
  await page.getByLabel("Plan by").selectOption("beginning not before");
  await expect(page.getByText("later than asked")).toBeHidden();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a calendar" }).click();
  expect((await saved).suggestedFilename()).toBe("dough.ics");
  await page.reload();
  await expect(page.getByLabel("Plan by")).toHaveValue("from");
});
