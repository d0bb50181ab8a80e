import { certificate, drop, expect, GOOD, test } from "./plant";

test("bad rows say what would be right and the good ones stay", async ({ page }) => {
  await page.goto("/");
  const rows = [
    ...GOOD.slice(0, 1),
    "protein;130;%;14 %;",
    "ash;0,61;;dry matter;",
    "wet gluten;plenty;%;14 %;",
    "loaf joy;3;%;;",
    "moisture;14,0;%;as is;",
    ...GOOD.slice(6, 7),
  ];
  await drop(page, certificate("VR-E2E-BAD", rows));
  for (const message of [
    "protein of 130 cannot be; it is from 0 to 40 %",
    "the unit is missing; ash is in %",
    "“plenty” is not a number",
    "“loaf joy” is not a property we know; one of moisture",
    "moisture stands twice, here and in row 1",
  ]) {
    await expect(page.getByText(message)).toBeVisible();
  }
  await expect(page.getByLabel("value, row 7")).toHaveValue("63,3");
  await expect(page.getByText("5 rows to put right or remove")).toBeVisible();
  await expect(page.getByRole("button", { name: "Save lot" })).toBeDisabled();

  await page.getByRole("button", { name: "Remove row 5" }).click();
  await expect(page.getByText("4 rows to put right or remove")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("5 rows to put right or remove")).toBeVisible();
});

test("what is no certificate is refused in words and leaves the rows alone", async ({ page }) => {
  await page.goto("/");
  const file = (buffer: Buffer) => ({ name: "sheet.csv", mimeType: "text/csv", buffer });
  await drop(page, file(Buffer.alloc(40 * 1024 * 1024, "x")));
  await expect(page.getByText("40 MB is far more than a certificate")).toBeVisible();
  await drop(page, file(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0])));
  await expect(page.getByText("this is not a text file")).toBeVisible();
  await drop(page, file(Buffer.from("dear miller, please find enclosed")));
  await expect(page.getByText("no row begins with property and value")).toBeVisible();
  await expect(page).toHaveURL(/\/$/);

  // Dropped anywhere on the page, it is taken just so.
  const data = await page.evaluateHandle(() => {
    const held = new DataTransfer();
    held.items.add(new File(["lot;VR-DROP\nproperty;value\nW;298"], "dropped.csv"));
    return held;
  });
  await page.dispatchEvent("body", "dragover", { dataTransfer: data });
  await expect(page.getByText("Drop the certificate here")).toBeVisible();
  await page.dispatchEvent("body", "drop", { dataTransfer: data });
  await expect(page.getByLabel("Lot", { exact: true })).toHaveValue("VR-DROP");
  await expect(page.getByText("the unit is missing; W is in 10-4 J")).toBeVisible();
});

test("a formula that makes no dough is said at its line, a recorded one is a revision", async ({
  page,
}) => {
  await page.goto("/dough?product=causeway-stick");
  const flour = page.getByLabel("flour, percent on flour");
  await flour.fill("90");
  await flour.press("Enter");
  await expect(page.getByText("these percentages make no dough")).toBeVisible();
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(flour).toHaveValue("100 %");

  const salt = page.getByLabel("salt, percent on flour");
  await salt.fill("-2");
  await salt.press("Enter");
  await expect(
    page.getByText("percent on flour must be from 0 to 100 %; -2 was given"),
  ).toBeVisible();
  await salt.fill("plenty");
  await salt.press("Enter");
  await expect(page.getByText("“plenty” is not a percentage, such as 1.9")).toBeVisible();
  await salt.fill("2.1");
  await salt.press("Enter");
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  await page.reload();
  await expect(salt).toHaveValue("2.1 %");
  await page.getByRole("button", { name: "Save revision 2" }).click();
  await expect(page.getByText("why is it changed?")).toBeVisible();
  await page.getByLabel("Why", { exact: true }).fill("flat taste");
  await page.getByRole("button", { name: "Save revision 2" }).click();
  await expect(page.getByText("Revision 2,")).toBeVisible();
  await expect(page.getByText("Edited, not saved")).toBeHidden();
});

test("a mass nobody can weigh is said at its field", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await page.getByRole("radio", { name: "dough", exact: true }).click();
  const dough = page.getByLabel("Dough wanted");
  await dough.fill("-4 kg");
  await dough.press("Enter");
  await expect(
    page.getByText("dough mass must be from 0.05 to 100000 kg; -4 was given"),
  ).toBeVisible();
  await dough.fill("3 lb 4 oz");
  await dough.press("Enter");
  await expect(dough).toHaveValue("1.474 kg");
  await expect(page.getByText("is less than Mixer 2 mixes well")).toBeVisible();
});

test("a target no water can reach is said at the field with what can be done", async ({ page }) => {
  await page.goto("/method?product=causeway-stick");
  const target = page.getByLabel("Target dough temperature");
  await target.fill("60");
  await target.press("Enter");
  await expect(page.getByRole("alert")).toContainText(
    "water hotter than 55 °C is not to be had here",
  );
  await expect(target).toHaveAttribute("aria-invalid", "true");
  await expect(page.getByText("target out of reach")).toBeVisible();

  await page.goto("/method?product=ferry-tin-short&tap=28");
  await target.fill("10");
  await target.press("Enter");
  await page.getByLabel("Flour temperature").fill("95 F");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Flour temperature")).toHaveValue("35.0 °C");
  await expect(page.getByRole("alert")).toContainText("of the water as ice");
  await expect(page.getByRole("alert")).toContainText("°C cooler");

  await page.getByLabel("Tap water").fill("200");
  await page.keyboard.press("Enter");
  await expect(page.getByText("tap water must be from 0 to 60 °C; 200 was given")).toBeVisible();
});

const GONE = "00000000-0000-7000-8000-000000000000";

for (const [what, path, message] of [
  ["a lot", `/flour?lot=${GONE}`, /this lot/],
  ["a lot of a dough", `/water?product=deck-roll-60&lot=${GONE}`, /this lot/],
  ["a product", "/dough?product=no-such-loaf", /this product/],
  ["a flour", `/flour/specification/${GONE}`, /No flour is on record/],
  ["a flour's chart", `/flour/control-chart/${GONE}`, /No flour is on record/],
  ["the lot compared with", `/flour/compare?product=deck-roll-60&against=${GONE}`, /lot/],
  ["a batch", `/batches/${GONE}`, /this batch/],
  ["a trial", `/trials/${GONE}`, /this trial/],
] as const) {
  test(`an address of ${what} that is gone says so`, async ({ page }) => {
    await page.goto(path);
    await expect(page.getByRole("alert").filter({ hasText: message })).toBeVisible();
    await expect(page.getByText("Computing")).toHaveCount(0);
  });
}
