import { daysAgo, expect, test } from "./plant";

/** A plant without anything, and the code its server printed. */
const EMPTY = process.env.IRONPEEL_EMPTY_URL ?? "http://127.0.0.1:7430";
const CODE = process.env.IRONPEEL_EMPTY_CODE ?? "";

test.use({ baseURL: EMPTY, storageState: { cookies: [], origins: [] } });

test("a newcomer comes from an empty plant to its first mixing sheet, each step ticked", async ({
  page,
}) => {
  const step = (name: string) => page.getByRole("listitem").filter({ hasText: name });
  const begin = async () => {
    await page.getByRole("link", { name: "Ironpeel" }).click();
    await expect(page.getByRole("heading", { name: "To the first mixing sheet" })).toBeVisible();
  };

  await page.goto("/");
  await page.getByLabel("Code").fill(CODE);
  await page.getByLabel("Name", { exact: true }).fill("Moa Lind");
  await page.getByLabel("Initials").fill("ML");
  await page.getByLabel("E-mail address").fill("moa@bread.example");
  await page.getByLabel("Password").fill("first in the house");
  await page.getByRole("button", { name: "Make the account" }).click();
  await expect(page.getByRole("heading", { name: "To the first mixing sheet" })).toBeVisible();

  await page.getByRole("link", { name: "The plant's clock, units and currency" }).click();
  await expect(page.getByText("First steps, 0 of 7 done")).toBeVisible();
  await page.getByLabel("Currency").fill("SEK");
  await page.getByLabel("Currency").press("Enter");
  await expect(page.getByText("First steps, 1 of 7 done")).toBeVisible();
  await begin();
  await expect(step("The plant's clock")).toContainText("done");
  await page.getByRole("button", { name: /Skip: The people/ }).click();
  await page.reload();
  await expect(step("The people")).toContainText("skipped");

  await page.getByRole("link", { name: "A line and its mixer" }).click();
  await page.getByRole("button", { name: /^Bakery with a deck oven/ }).click();
  await page.getByLabel("Name of the line").fill("Line 1");
  await page.getByLabel("Holds at most", { exact: true }).fill("160 kg");
  await page.getByLabel("Holds at most", { exact: true }).press("Tab");
  await page.getByRole("button", { name: "Save the line" }).click();
  await expect(page.getByText("First steps, 2 of 7 done")).toBeVisible();

  await page.getByRole("link", { name: "A flour and what is asked of it" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Holm Strong");
  await page.getByLabel("Mill", { exact: true }).fill("Holm Mill");
  await page.getByRole("button", { name: "Save flour" }).click();
  await page.getByRole("button", { name: "begin with moisture" }).click();
  await page.getByLabel("moisture, max").fill("15");
  await page.getByRole("button", { name: "Save revision 1" }).click();
  await expect(page.getByText("First steps, 3 of 7 done")).toBeVisible();

  await page.getByRole("link", { name: "Its first certificate" }).click();
  await expect(page.getByRole("heading", { name: "Import certificate" })).toBeVisible();
  await page.getByLabel("Flour", { exact: true }).selectOption({ label: "Holm Strong, Holm Mill" });
  await page.getByLabel("Lot", { exact: true }).fill("HM-1");
  await page.getByLabel("Milled").fill(daysAgo(12));
  await page.getByLabel("Delivered").fill(daysAgo(10));
  for (const [at, [property, value, unit, basis]] of [
    ["moisture", "14.2", "%", "as is"],
    ["protein", "12.4", "%", "14 %"],
    ["ash", "0.58", "%", "dry matter"],
    ["falling number", "310", "s", ""],
    ["absorption", "60.5", "%", "14 %"],
  ].entries()) {
    await page.getByRole("button", { name: "Add a row" }).click();
    for (const [cell, text] of [
      ["property", property],
      ["value", value],
      ["unit", unit],
      ["basis", basis],
    ]) {
      await page.getByLabel(`${cell}, row ${at + 1}`, { exact: true }).fill(text ?? "");
    }
  }
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByText("First steps, 4 of 7 done")).toBeVisible();

  await page.getByRole("link", { name: "A product from a template" }).click();
  await page.getByLabel("Its name here").fill("Holm Tin");
  await page.getByRole("button", { name: "Make the product" }).click();
  await expect(page.getByRole("heading", { name: "Holm Tin" })).toBeVisible();
  await expect(page.getByText("First steps, 5 of 7 done")).toBeVisible();

  await page.getByRole("link", { name: "The first mixing sheet" }).click();
  await page.getByRole("button", { name: "Plan this batch" }).click();
  await expect(page.getByText(/Planned|planned/).first()).toBeVisible();
  await expect(page.getByText("First steps,")).toHaveCount(0);
  await page.goto("/");
  await expect(page.getByRole("link", { name: /Holm Tin/ }).first()).toBeVisible();
  await expect(page.getByRole("heading", { name: "To the first mixing sheet" })).toHaveCount(0);
});
