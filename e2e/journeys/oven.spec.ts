import { stateOf } from "../signIn";
import { everybodyCanUse, expect, link, test } from "./plant";

test.use({ storageState: stateOf("technologist"), viewport: { width: 1280, height: 800 } });

const FAHRENHEIT = [
  "time (min),left,right",
  "0,82,83",
  "4,95,97",
  "8,118,122",
  "12,151,156",
  "14,169,174",
  "16,185,190",
  "18,198,201",
  "20,205,206",
].join("\n");

test("a logger's file is taken in, its unit asked, and the bake that would meet the target said", async ({
  page,
}) => {
  await page.goto("/oven?of=deck-roll-60");
  await expect(page.getByRole("heading", { name: "Bakes", exact: true })).toBeVisible();
  await expect(link(page, "Oven")).toBeVisible();
  await everybodyCanUse(page);
  const file = { name: "bake.csv", mimeType: "text/csv", buffer: Buffer.from(FAHRENHEIT) };
  await page.getByLabel("choose the file").setInputFiles(file);
  await expect(page.getByRole("alert")).toContainText("are they °F?");
  await page.getByRole("button", { name: "They are °F" }).click();
  await expect(page.getByText("2 probes, 8 samples")).toBeVisible();
  await page.getByLabel("Baked for").fill("20 min");
  await page.getByRole("button", { name: "Save trace" }).click();
  await page.waitForURL(/\/oven\/bakes\//);
  await expect(page.getByText("The slowest core is set after")).toContainText("points late");
  await expect(page.getByText(/^Bake .* instead of 20 min/)).toBeVisible();
  await expect(page.getByRole("row", { name: /^left/ })).toBeVisible();
  await everybodyCanUse(page);
  // A mark is moved by hand and put back; another piece is scaled from this one.
  const arrival = page.getByRole("slider", { name: "arrival, minutes" });
  const read = await arrival.getAttribute("aria-valuenow");
  await arrival.focus();
  await arrival.press("ArrowLeft");
  const moved = page.getByText(/^Runa Kell moved the arrival of/);
  await expect(moved).toBeVisible();
  await expect(arrival).not.toHaveAttribute("aria-valuenow", read ?? "");
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(moved).toHaveCount(0);
  await expect(arrival).toHaveAttribute("aria-valuenow", read ?? "");
  await page.getByLabel("Dough in the piece").fill("120 g");
  await page.getByLabel("Dough in the piece").press("Tab");
  await expect(page.getByText(/^Bakes about .* likely/)).toBeVisible();
  // It is in the list, and in the batch's figures.
  await page.getByRole("link", { name: "Bakes of Deck Roll 60" }).click();
  await expect(page.getByRole("row", { name: /imported, Runa Kell/ })).toBeVisible();
});

test("the simulated logger goes along where there is none", async ({ page }) => {
  await page.goto("/oven?of=ferry-tin-short");
  await page.getByRole("button", { name: "Run the simulated logger" }).click();
  await page.waitForURL(/\/oven\/bakes\//);
  await expect(page.getByRole("row", { name: /^Probe 5/ })).toBeVisible();
});
