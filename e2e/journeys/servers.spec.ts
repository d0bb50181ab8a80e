import { expect, openLot, test } from "./plant";

const OTHER = process.env.IRONPEEL_OTHER_URL ?? "http://127.0.0.1:7421";

test.use({ storageState: { cookies: [], origins: [] } });

test("signed in at one server, what is recorded there is seen at another as it happens", async ({
  page,
  context,
}) => {
  await page.goto("/");
  await page.getByRole("button", { name: /^Runa Kell/ }).click();
  await expect(page.getByRole("button", { name: "Account of Runa Kell" })).toBeVisible();
  await openLot(page, "VR-26-1063", "/flour");
  const there = await context.newPage();
  const lot = new URL(page.url());
  await there.goto(`${OTHER}${lot.pathname}${lot.search}`);
  const bay = `silo ${Date.now() % 1e5}`;
  const silo = there.getByText(`1.2 t in ${bay}`);
  await expect(there.getByLabel("Silo or bay")).toBeVisible();
  await expect(silo).toHaveCount(0);

  await page.getByLabel("Silo or bay").fill(bay);
  await page.getByLabel("Tonnes left").fill("1.2");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText(`1.2 t in ${bay}`)).toBeVisible();
  await expect(silo).toBeVisible();
  await there.reload();
  await expect(silo).toBeVisible();
});
