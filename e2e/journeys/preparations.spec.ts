import { expect, link, test } from "./plant";

test("a scald is told as it is made, when it is cool, and stands boiling on the sheet", async ({
  page,
  baseURL,
}) => {
  // Other journeys bring lots of this rye that nobody may use.
  const lot = crypto.randomUUID();
  const kept = await page.request.put(`/api/v1/flours/${crypto.randomUUID()}/bags/${lot}`, {
    data: { name: `Bag of rye ${lot.slice(0, 4)}`, species: "rye", protein_pct: 9, signed: {} },
    headers: { origin: baseURL ?? "" },
  });
  expect(kept.ok(), await kept.text()).toBe(true);
  await page.goto(`/method?product=kesh-dark&lot=${lot}`);
  const scald = page
    .getByRole("region", { name: "Preparations" })
    .getByRole("row", { name: /^scald/ });
  await expect(scald).toContainText("100.0 °C");
  await expect(scald).toContainText(/below 35 °C after/);
  await expect(scald).not.toContainText("too hot for yeast");

  await link(page, "Floor").click();
  const sheet = page.getByRole("article", { name: "Mixing sheet" });
  await expect(sheet.getByText("boiling water, 100.0 °C")).toBeVisible();
  await link(page, "Method").click();

  // An hour is not enough for it.
  await page.getByRole("link", { name: "Stages", exact: true }).click();
  await page.getByRole("button", { name: /^Change Scald/ }).click();
  await expect(page.getByLabel("Of", { exact: true })).toHaveValue("scald");
  await page.getByLabel("Lasts").fill("1 h");
  await page.getByLabel("Lasts").press("Tab");
  await page.getByRole("link", { name: "Dough temperature" }).click();
  await expect(scald).toContainText("too hot for yeast");

  // In water that is merely hot it is made cooler.
  await link(page, "Dough").click();
  const parts = page.getByRole("region", { name: "Preferments and soakers" });
  const water = parts.getByLabel("Its water").last();
  await water.fill("70");
  await water.press("Tab");
  await link(page, "Floor").click();
  await expect(sheet.getByText("water, 70.0 °C")).toBeVisible();
});

test("a stage and what goes in at one are dragged to another place", async ({ page }) => {
  await page.goto("/method/stages?product=ferry-tin-800");
  const stages = page.getByRole("region", { name: "Stages" }).locator("ol > li");
  // Its tolerances and predicted ends are there: nothing moves any more under the hand.
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  await expect(stages.nth(3)).toContainText("4 to 8 min");
  await expect(stages.nth(4)).toContainText("Salt in, to full development");
  await expect(stages.nth(4)).toContainText("salt in");
  await stages
    .nth(4)
    .getByTitle("Drag it to the stage it goes in at")
    .dragTo(stages.nth(3).getByText("Development", { exact: true }).first());
  await expect(stages.nth(3)).toContainText("salt in");
  await expect(stages.nth(4)).not.toContainText("salt in");
  await stages
    .nth(10)
    .getByTitle("Drag it to another place")
    .dragTo(stages.nth(9).getByTitle("Drag it to another place"));
  await expect(stages.nth(9)).toContainText("Bake");
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(stages.nth(10)).toContainText("Bake");
});

test("an oven's phases make the bake as long as they are", async ({ page }) => {
  await page.goto("/method/stages?product=ferry-tin-800");
  await page.getByRole("button", { name: "Change Bake" }).click();
  await page.getByRole("button", { name: "Add a phase" }).click();
  await expect(page.getByLabel("Lasts")).toHaveValue("29 min");
  await page.getByLabel("Phase 4").fill("3");
  await page.getByLabel("Phase 4").press("Tab");
  await expect(page.getByLabel("Lasts")).toHaveValue("27 min");
  await link(page, "Floor").click();
  await expect(page.getByText(/3 min at 205 °C, damper open/)).toBeVisible();
});

test("balls of one dough are for two days and for the freezer", async ({ page }) => {
  await page.goto("/method/schedule?product=ebb-flats-240");
  await page.getByRole("button", { name: /the earliest that fits/ }).click();
  const portions = page.getByRole("region", { name: "Portions on several days" });
  const add = portions.getByRole("button", { name: "Add a portion" });
  await add.click();
  await add.click();
  await portions.getByLabel("Kept in the").last().selectOption("freezer");
  const [first, second] = [
    portions.getByRole("listitem").first(),
    portions.getByRole("listitem").last(),
  ];
  await expect(first).toContainText(/its core at 17 °C by/);
  await expect(second).toContainText(/into the refrigerator .* out .* into the oven/);
  await expect(portions).toContainText("78 of 82 pieces are left over");
  await portions.getByLabel("Pieces").first().fill("90");
  await portions.getByLabel("Pieces").first().press("Tab");
  await expect(portions).toContainText("92 pieces are asked for and the dough makes 82");
  await portions.getByLabel("Pieces").first().fill("2");
  await portions.getByLabel("Pieces").first().press("Tab");
  const saved = page.waitForEvent("download");
  await portions.getByRole("button", { name: "Portions as a calendar" }).click();
  expect((await saved).suggestedFilename()).toBe("dough.ics");
});
