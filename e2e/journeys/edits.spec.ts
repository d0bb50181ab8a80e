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
