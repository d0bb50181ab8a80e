import { barriers, certificate, drop, everybodyCanUse, expect, GOOD, link, test } from "./plant";

const SCREENS = [
  ["start", "/"],
  ["flour", "/flour?product=deck-roll-60"],
  ["water", "/water?product=deck-roll-60"],
  ["dough", "/dough?product=deck-roll-60"],
  ["method", "/method?product=ferry-tin-short&flour=38&tap=28"],
  ["stages", "/method/stages?product=kesh-dark"],
  ["mixer and line", "/method/line?product=deck-roll-60"],
  ["sponge", "/method/sponge?product=ferry-tin-800"],
  ["straight or sponge", "/method/straight-or-sponge?product=ferry-tin-800"],
  ["starter", "/method/starter?product=holm-tin"],
  ["the run", "/method/production-run?product=ferry-tin-800&mixer=10"],
  ["rise", "/method/fermentation?product=ferry-tin-800"],
  ["the day", "/method/schedule?product=holm-tin"],
  ["floor", "/floor?product=causeway-stick"],
  ["what changed", "/flour/compare?product=deck-roll-60"],
  ["flour from a bag", "/flour/bag"],
  ["drift", "/flour/control-chart?product=deck-roll-60"],
  ["curves", "/flour/curves?product=deck-roll-60"],
  ["specification", "/flour/specification?product=deck-roll-60"],
  ["blend bench", "/flour/blend?product=deck-roll-60"],
  ["mend", "/flour/correction?product=deck-roll-60"],
  ["many lots", "/flour/import?product=deck-roll-60"],
  ["other lots", "/water/compare?product=deck-roll-60"],
  ["who holds the water", "/water/distribution?product=ferry-tin-800"],
  ["grains", "/water/grains?product=rigg-spelt-500"],
  ["correction factors", "/water/correction-factors"],
  ["what lots teach", "/water/absorption-model"],
  ["a dough with parts", "/dough?product=kesh-dark"],
  ["variants", "/dough/trials?product=holm-tin"],
  ["by amounts", "/dough/convert?product=holm-tin"],
  ["revisions", "/dough/revisions?product=ferry-tin-short"],
  ["ingredients", "/plant/ingredients"],
  ["coefficients", "/plant/coefficients"],
  ["mills of the plant", "/plant/mills"],
  ["flours of the plant", "/plant/flours"],
  ["products of the plant", "/plant/products"],
  ["lines of the plant", "/plant/lines"],
  ["a new line", "/plant/lines/new"],
  ["settings of the plant", "/plant/settings"],
  ["stations of the floor", "/plant/stations"],
  ["audit trail", "/plant/audit"],
  ["batches", "/results"],
  ["fault finder", "/results/faults?fault=smearing&batch=ecea37fd-eae3-570f-95e0-5f80fd2bdf3f"],
  ["scores", "/results/scores"],
  ["judge a sample", "/judge"],
  ["bakes", "/oven?of=ferry-tin-800"],
  ["new product", "/dough/new"],
  ["no hand", "/water"],
  ["nowhere", "/no/such/place"],
] as const;

for (const [name, path] of SCREENS) {
  test(`${name} can be used by everybody, by day and by night`, async ({ page }) => {
    await page.goto(path);
    if (path.includes("product=")) await expect(link(page, "Floor")).toContainText("Mixing sheet");
    await expect(page.locator("html")).toHaveAttribute("data-theme", "day");
    // The view's own script has come, and with it the view.
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await everybodyCanUse(page);
    // By night the colours are others, and all else is the same.
    await page.evaluate(() => (document.documentElement.dataset.theme = "night"));
    expect(await barriers(page, "color-contrast")).toEqual([]);
  });
}

test("the certificate, the batch and the sheets laid over can be used by everybody", async ({
  page,
}) => {
  await page.goto("/floor?product=deck-roll-60");
  await page.getByRole("button", { name: "Plan this batch" }).click();
  await expect(page.getByRole("heading", { name: "Revisions" })).toBeVisible();
  expect(await barriers(page)).toEqual([]);
  await page.goto("/");
  await drop(page, certificate("VR-E2E-AXE", [...GOOD.slice(0, 3), "protein;130;%;14 %;"]));
  await expect(
    page.getByText("protein stands twice").or(page.getByText("cannot be")),
  ).toBeVisible();
  expect(await barriers(page)).toEqual([]);
  for (const key of ["?", ",", "/"]) {
    await page.locator("h1").click();
    await page.keyboard.press(key);
    await expect(page.getByRole("dialog").getByRole("heading", { level: 2 }), key).toBeVisible();
    expect(await barriers(page)).toEqual([]);
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
  }
});
