import { expect, link, test } from "./plant";
import type { Locator, Page } from "@playwright/test";

// Each pair of edits as fast as a browser can make them: neither is lost.

const TIMES = 10;
const HEAT = "/method?product=ferry-tin-short";

const param = (page: Page, key: string) => new URL(page.url()).searchParams.get(key);

/** Types into one field and the other, one straight after the other, and waits for nothing between. */
async function both(page: Page, edits: [Locator, string][]) {
  const fields = await Promise.all(edits.map(([field]) => field.elementHandle()));
  const texts = edits.map(([, text]) => text);
  await page.evaluate(
    async ({ fields, texts }) => {
      const value = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value");
      for (const [at, field] of fields.entries()) {
        (field as HTMLInputElement).focus();
        value?.set?.call(field, texts[at]);
        field?.dispatchEvent(new Event("input", { bubbles: true }));
        await Promise.resolve();
        field?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
        await Promise.resolve();
      }
    },
    { fields, texts },
  );
}

test("the dough's target and the flour's temperature, fifty times", async ({ page }) => {
  test.slow();
  await page.goto(HEAT);
  const fields = [
    page.getByLabel("Target dough temperature"),
    page.getByLabel("Flour temperature"),
  ];
  await expect(fields[0]!).toBeVisible();
  for (let time = 0; time < 50; time += 1) {
    const texts = [String(20 + (time % 9)), String(12 + (time % 17))];
    await both(page, [
      [fields[0]!, texts[0]!],
      [fields[1]!, texts[1]!],
    ]);
    await expect.poll(() => [param(page, "target"), param(page, "flour")]).toEqual(texts);
  }
});

/** Two fields of a page, and what stands in them afterwards, as often as asked. */
async function neitherLost(
  page: Page,
  labels: [string, string],
  texts: (time: number) => string[],
) {
  const fields = labels.map((label) => page.getByLabel(label, { exact: true }));
  for (let time = 0; time < TIMES; time += 1) {
    const typed = texts(time);
    await both(page, [
      [fields[0]!, typed[0]!],
      [fields[1]!, typed[1]!],
    ]);
    await expect.poll(() => shownIn(fields)).toEqual(typed.map(Number));
  }
}

const shownIn = async (fields: Locator[]) =>
  Promise.all(fields.map(async (field) => parseFloat(await field.inputValue())));

test("two percents of a formula, and one undone at once", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await expect(page.getByLabel("salt, percent on flour")).toBeVisible();
  await neitherLost(page, ["salt, percent on flour", "sugar, percent on flour"], (time) => [
    String(1.5 + time / 10),
    String(3 + time / 2),
  ]);
  const salt = page.getByLabel("salt, percent on flour");
  for (let time = 0; time < TIMES; time += 1) {
    const before = await salt.inputValue();
    await both(page, [[salt, String(3 + time / 10)]]);
    await salt.blur();
    await page.keyboard.press("Control+z");
    await expect(salt).toHaveValue(before);
  }
});

test("two temperatures of a method", async ({ page }) => {
  await page.goto("/method/stages?product=ferry-tin-800");
  await expect(page.getByLabel("Sponge set at")).toBeVisible();
  await neitherLost(page, ["Off the mixer", "Sponge set at"], (time) => [
    String(24 + time / 2),
    String(22 + time / 2),
  ]);
});

test("two limits of a specification", async ({ page }) => {
  await page.goto("/flour/specification?product=deck-roll-60");
  await expect(page.getByLabel("moisture, max")).toBeVisible();
  await neitherLost(page, ["moisture, max", "ash, max"], (time) => [
    String(14.1 + time / 10),
    String(0.6 + time / 100),
  ]);
  await page.reload();
  await expect(page.getByLabel("ash, max")).toHaveValue("0.69");
  await page.getByRole("button", { name: "Discard" }).click();
});

test("no other flour's fields stand there while the product is under way", async ({ page }) => {
  let answer = () => {};
  const held = new Promise<void>((resolve) => (answer = resolve));
  await page.route("**/api/v1/products/deck-roll-60{,/opening}", async (route) => {
    await held;
    await route.continue();
  });
  await page.goto("/flour/specification?product=deck-roll-60");
  const flour = page.getByRole("combobox", { name: "Flour", exact: true });
  await expect(flour.locator("option", { hasText: "Tarn Strong" })).toBeAttached();
  await expect(flour).toHaveValue("");
  answer();
  await expect(page.getByLabel("moisture, max")).toBeVisible();
});

test("two values of a certificate", async ({ page }) => {
  await page.goto("/flour/receive");
  await page.getByRole("button", { name: "Add a row" }).click();
  await expect(page.getByText("1 row to put right")).toBeVisible();
  // No fault comes to a row just added, or the button would move away under the pointer.
  await expect(page.getByText("the property is missing")).toHaveCount(0);
  await page.getByRole("button", { name: "Add a row" }).click();
  await neitherLost(page, ["value, row 1", "value, row 2"], (time) => [
    String(13 + time / 10),
    String(0.5 + time / 10),
  ]);
  await page.getByRole("button", { name: "Clear" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel("value, row 2")).toHaveValue("1.4");
});

test("a share and a price of a blend", async ({ page }) => {
  await page.goto("/flour/blend");
  const put = page.getByLabel("Add a lot");
  await expect(put.locator("option", { hasText: "VR-26-1090" })).toBeAttached();
  await put.selectOption({ label: "VR-26-1090, Tarn Strong" });
  const share = "Share of VR-26-1090, Tarn Strong, %";
  await expect(page.getByLabel(share)).toBeVisible();
  await neitherLost(page, [share, "Price of VR-26-1090, Tarn Strong per t"], (time) => [
    String(50 + time),
    String(400 + time),
  ]);
});

test("a lot is chosen and the tap set in the same breath", async ({ page }) => {
  await page.goto("/method?product=deck-roll-60");
  const tap = page.getByLabel("Tap water");
  await expect(tap).toBeVisible();
  for (let time = 0; time < TIMES; time += 1) {
    const before = param(page, "lot");
    await page.getByRole("heading", { name: "Heat balance" }).click();
    await page.keyboard.press(time % 2 ? "]" : "[");
    await both(page, [[tap, String(8 + time)]]);
    await expect.poll(() => param(page, "tap")).toBe(String(8 + time));
    expect(param(page, "lot")).not.toBe(before);
  }
});

test("an edit is followed by another link at once", async ({ page }) => {
  await page.goto(HEAT);
  const tap = page.getByLabel("Tap water");
  for (let time = 0; time < TIMES; time += 1) {
    await expect(tap).toBeVisible();
    await both(page, [[tap, String(6 + time)]]);
    await link(page, "Water").click();
    await expect(page).toHaveURL(new RegExp(`/water\\?.*tap=${6 + time}(&|$)`));
    await link(page, "Method").click();
  }
});

test("a method is edited while a step of it is being left out", async ({ page }) => {
  await page.goto("/method/stages?product=causeway-stick");
  const autolyse = page.getByRole("checkbox", { name: /autolyse/i });
  await expect(autolyse).toBeVisible();
  await page.route("**/api/v1/optional-step", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 300));
    await route.continue();
  });
  const target = page.getByLabel("Off the mixer");
  for (let time = 0; time < TIMES; time += 1) {
    const was = await autolyse.isChecked();
    await autolyse.click();
    await both(page, [[target, String(23 + time / 2)]]);
    await expect(autolyse).toBeChecked({ checked: !was });
    expect(parseFloat(await target.inputValue())).toBe(23 + time / 2);
  }
});

test("a refusal follows to the next page, until it is discarded", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  const salt = page.getByLabel("salt, percent on flour");
  await expect(salt).toBeVisible();
  await both(page, [[salt, "2.4"]]);
  await page.getByRole("button", { name: /^Save revision/ }).click();
  await expect(page.getByText("why is it changed?")).toHaveCount(1);
  await link(page, "Water").click();
  const refused = page.getByRole("status").filter({ hasText: "Refused:" });
  await expect(refused).toContainText("Deck Roll 60, revision");
  await refused.getByRole("button", { name: "Discard" }).click();
  await expect(refused).toHaveCount(0);
});
