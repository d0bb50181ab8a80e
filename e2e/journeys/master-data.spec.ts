import { expect, test } from "./plant";

test("a line is made from nothing: what is missing is asked for, and a product can be made on it", async ({
  page,
}) => {
  await page.goto("/plant/lines/new");
  const type = async (label: string, value: string) => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press("Tab");
  };
  await type("Name of the line", "Table 4");
  await type("The mixer", "A bowl");
  await page.getByLabel("Its kind").selectOption("hand");
  await page.getByRole("button", { name: "Save the line" }).click();
  await expect(page.getByText("the most it holds is missing", { exact: false })).toBeVisible();
  for (const [label, value] of [
    ["Mixes at least", "0.2 kg"],
    ["Holds at most", "3 kg"],
    ["Slow, kJ/kg a minute", "0.1"],
    ["Fast, kJ/kg a minute", "0.2"],
    ["Batch interval, min", "10"],
    ["Troughs", "2"],
    ["Dough in a trough", "3 kg"],
    ["Floor a trough takes, m²", "0.1"],
    ["Divider, pieces a minute", "2"],
    ["Proofer holds, pieces", "8"],
    ["Oven holds, pieces", "4"],
    ["Scale shows, steps of", "1 g"],
    ["Tap water, usually", "14"],
    ["Flour, usually", "20"],
    ["Room, usually", "21"],
  ] as const) {
    await type(label, value);
  }
  await page.getByRole("button", { name: "Save the line" }).click();
  await expect(page).toHaveURL(/\/plant\/lines\/[0-9a-f-]{36}/);
  await expect(page.getByRole("table", { name: "Lines" })).toContainText("Table 4");
  await expect(page.getByRole("heading", { name: "Revisions of Table 4" })).toBeVisible();
  await page.goto("/dough/new");
  await expect(page.getByRole("option", { name: "Table 4" }).first()).toBeAttached();
});

test("lists sort by any column, say so, and go to the clipboard as CSV", async ({
  page,
  context,
}) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto("/plant/flours");
  const table = page.getByRole("table", { name: "Flours" });
  await table.getByRole("button", { name: "price a tonne" }).click();
  const head = table.getByRole("columnheader", { name: "price a tonne" });
  await expect(head).toHaveAttribute("aria-sort", /ascending|descending/);
  const prices = async () =>
    (await table.getByRole("row").allInnerTexts())
      .slice(1)
      .map((row) => Number(row.split("\t")[5]));
  const shown = await prices();
  expect(shown.length).toBeGreaterThan(5);
  const sorted = [...shown].sort((one, other) => one - other);
  expect([sorted, [...sorted].reverse()]).toContainEqual(shown);
  await page.getByLabel("Search flours").fill("emmer");
  await expect(table.getByRole("row")).toHaveCount(2);
  await page.getByRole("button", { name: "Copy as CSV" }).click();
  await expect(page.getByText("1 row copied as CSV")).toBeVisible();
  const text = await page.evaluate(() => navigator.clipboard.readText());
  expect(text).toMatch(/^flour,mill,grain,for/);
  expect(text).toContain("Brae Emmer,Brae Stone Mill,emmer");
});

test("single keys can be switched off", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Select a product" })).toBeVisible();
  await page.keyboard.press("p");
  await expect(page).toHaveURL(/\/plant\/flours/);
  await page.getByRole("button", { name: "Settings" }).click();
  await page.getByRole("radiogroup", { name: "Single-key shortcuts" }).getByText("off").click();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.keyboard.press("1");
  // Nothing happens, and that would have happened by now.
  await page.getByRole("button", { name: "price a tonne" }).click();
  await expect(page).toHaveURL(/\/plant\/flours/);
});

test("a key pressed in the moment the view appears is not lost", async ({ page }) => {
  await page.addInitScript(() => {
    const watch = new MutationObserver(() => {
      if (!document.querySelector("h1")) return;
      watch.disconnect();
      setTimeout(() => window.dispatchEvent(new KeyboardEvent("keydown", { key: "p" })));
    });
    watch.observe(document, { childList: true, subtree: true });
  });
  await page.goto("/");
  await expect(page).toHaveURL(/\/plant\/flours/);
});
