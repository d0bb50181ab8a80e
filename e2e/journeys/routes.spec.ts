import { expect, link, test } from "./plant";

/** The scripts a page names in its head, as they travel, in bytes. */
test("the first view loads what it shows, and no more than 150 kB of it is script", async ({
  page,
  request,
}) => {
  const html = await (await request.get("/")).text();
  const named = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)];
  const scripts = [...new Set(named.map(([, path]) => path))];
  expect(scripts.length).toBeGreaterThan(1);
  let bytes = 0;
  for (const path of scripts) {
    const answer = await request.get(path ?? "", { headers: { "accept-encoding": "br" } });
    expect(answer.headers()["content-encoding"], path).toBe("br");
    bytes += Number(answer.headers()["content-length"]);
  }
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(150_000);
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Select a product" })).toBeVisible();
});

const MOVED = [
  ["/flour/change", "/flour/compare"],
  ["/flour/drift", "/flour/control-chart"],
  ["/flour/mend", "/flour/correction"],
  ["/flour/intake", "/flour/receive"],
  ["/water/lots", "/water/compare"],
  ["/water/holders", "/water/distribution"],
  ["/water/rules", "/water/correction-factors"],
  ["/water/model", "/water/absorption-model"],
  ["/dough/variants", "/dough/trials"],
  ["/dough/amounts", "/dough/convert"],
  ["/dough/ingredients", "/plant/ingredients"],
  ["/method/two-ways", "/method/straight-or-sponge"],
  ["/method/rise", "/method/fermentation"],
  ["/method/day", "/method/schedule"],
  ["/method/run", "/method/production-run"],
] as const;

test("bookmarks of earlier versions lead to the same view with the same scenario", async ({
  page,
}) => {
  for (const [was, is] of MOVED) {
    await page.goto(`${was}?product=ferry-tin-800&tap=18`);
    await expect(page).toHaveURL(new RegExp(`${is}\\?product=ferry-tin-800&.*tap=18`));
    await expect(link(page, "Floor")).toContainText("Mixing sheet");
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
  }
});

test("a screen has its heading while its answers are under way", async ({ page }) => {
  await page.route("**/api/v1/chain/**", () => {});
  for (const [, is] of MOVED.filter(([, is]) => !is.startsWith("/flour"))) {
    await page.goto(`${is}?product=ferry-tin-800`);
    await expect(link(page, "Floor")).toContainText("Mixing sheet");
    await expect(page.getByRole("heading", { level: 1 }), is).toBeVisible();
  }
});

test("a lot chosen while another page is still being fetched stops nobody and is not lost", async ({
  page,
}) => {
  await page.goto("/floor?product=deck-roll-60");
  await expect(page.getByRole("button", { name: "Plan this batch" })).toBeVisible();
  const lot = () => new URL(page.url()).searchParams.get("lot");
  const first = lot();
  await page.route("**/assets/**", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 3000));
    await route.continue();
  });
  await page.getByRole("link", { name: "Plant", exact: true }).click();
  await page.keyboard.press("[");
  await expect(page).toHaveURL(/\/plant\/flours/);
  const chosen = lot();
  expect([first, chosen]).not.toContain(null);
  expect(chosen).not.toBe(first);
});

test("whoever goes elsewhere while a batch is being planned is not called back", async ({
  page,
}) => {
  await page.goto("/floor?product=deck-roll-60");
  await page.getByLabel("Mixing starts").fill("2030-06-05T05:00");
  const later = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
  // The answer comes while the page that was asked for is still being fetched.
  await page.route("**/api/v1/batches/*", async (route) => {
    await later(route.request().method() === "PUT" ? 1500 : 0);
    await route.continue();
  });
  await page.route("**/assets/**", async (route) => {
    await later(4000);
    await route.continue();
  });
  const answered = page.waitForResponse((one) => one.request().method() === "PUT");
  await page.getByRole("button", { name: "Plan this batch" }).click();
  await page.getByRole("link", { name: "Plant", exact: true }).click();
  expect((await answered).ok()).toBe(true);
  await expect(page).toHaveURL(/\/plant\/flours/);
  await later(1000);
  await expect(page).toHaveURL(/\/plant\/flours/);
});
