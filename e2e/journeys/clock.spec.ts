import { expect, test } from "./plant";

// A browser five hours behind the plant, and one thirteen ahead, show the plant's hours and days.
for (const zone of ["America/New_York", "Pacific/Auckland"]) {
  test.describe(zone, () => {
    test.use({ timezoneId: zone });

    test(`hours and days are the plant's in ${zone}`, async ({ page }) => {
      const { lots } = await (await page.request.get("/api/v1/lots")).json();
      // A flour from a bag has no day it was milled on.
      const lot = (lots as { id: string; milled_on?: string | null }[]).find(
        (one) => one.milled_on,
      );
      if (!lot?.milled_on) throw new Error("no lot was milled on a day");
      await page.goto(`/flour?lot=${lot.id}`);
      const milled = new Date(lot.milled_on).toLocaleDateString("en-GB", {
        day: "numeric",
        month: "short",
        year: "numeric",
        timeZone: "UTC",
      });
      await expect(page.getByText(new RegExp(`^${milled}, \\d+ days? ago`))).toBeVisible();

      // Five in the morning at the plant, planned and written into the batch.
      await page.goto("/floor?product=deck-roll-60");
      const planned = page.getByLabel("Mixing starts");
      await planned.fill("2030-06-04T05:00");
      await expect(page.getByRole("article")).toContainText("Tue 4 Jun, 05:00");
      const sent = page.waitForRequest((request) => request.method() === "PUT");
      await page.getByRole("button", { name: "Plan this batch" }).click();
      expect((await sent).postDataJSON().planned_for).toBe("2030-06-04T04:00:00.000Z");
      await expect(page.getByRole("article")).toContainText("Tue 4 Jun, 05:00");

      await page.getByRole("button", { name: /^Settings/ }).click();
      await expect(page.getByText(`This browser's own is ${zone}`)).toBeVisible();
      await page.getByRole("link", { name: "Settings of the plant" }).click();
      await expect(page.getByLabel("Time zone")).toHaveValue("Europe/London");
      await expect(page.getByText(`This browser's own clock is ${zone}`)).toBeVisible();
    });
  });
}
