import { expect, test } from "@playwright/test";

test("with the disk full what is saved is held, said to be, and sent once it can be", async ({
  page,
  context,
  baseURL,
}) => {
  await page.goto("/dough/trials?product=holm-tin");
  await page.getByRole("checkbox", { name: /^Try / }).first().check();
  await expect(page.getByRole("button", { name: "Save trial" })).toBeEnabled();
  const browser = await context.newCDPSession(page);
  const origin = new URL(baseURL ?? "").origin;
  await browser.send("Storage.overrideQuotaForOrigin", { origin, quotaSize: 1 });
  await context.setOffline(true);
  await page.getByRole("button", { name: "Save trial" }).click();
  await expect(page.getByText("Not yet recorded:")).toBeVisible();
  await expect(page.getByText("leave this page open until it is sent")).toBeVisible();

  await context.setOffline(false);
  await expect(page.getByRole("heading", { name: "Trial of Holm Tin" })).toBeVisible();
  await expect(page.getByText("Not yet recorded")).toHaveCount(0);
});
