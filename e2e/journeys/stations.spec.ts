import type { Page } from "@playwright/test";
import { stateOf } from "../signIn";
import { everybodyCanUse, expect, openLot, test } from "./plant";

test.use({ storageState: { cookies: [], origins: [] }, viewport: { width: 1024, height: 768 } });

/** Signs a technologist in and makes this browser a station. */
async function becomeStation(page: Page, minutes = "15") {
  await page.goto("/plant/stations");
  await page.getByRole("button", { name: /^Runa Kell/ }).click();
  await page.getByLabel("Where it stands").fill(`mixer ${Date.now() % 1e5}`);
  await page.getByLabel("Nobody there after, min").fill(minutes);
  await page.getByRole("button", { name: "Make it a station" }).click();
  await expect(page.getByRole("heading", { name: "Who is here?" })).toBeVisible();
}

async function enter(page: Page, name: string, pin: string) {
  await page.getByRole("button", { name: new RegExp(name) }).click();
  for (const digit of pin) await page.getByRole("button", { name: digit, exact: true }).click();
  await page.getByRole("button", { name: "Go on" }).click();
}

const here = (page: Page, name: string) =>
  page.getByRole("button", { name: `${name} is here; somebody else` });

async function keep(page: Page, bay: string) {
  await page.getByLabel("Silo or bay").fill(bay);
  await page.getByLabel("Tonnes left").fill("1.5");
  await page.getByRole("button", { name: "Keep" }).click();
}

/** What the trail says of the newest stock that somebody recorded; others record theirs meanwhile. */
async function newestStock(page: Page, whose: string) {
  const answer = await page.request.get("/api/v1/audit?q=stock");
  const { entries } = (await answer.json()) as {
    entries: { who: string; verified: boolean; action: string }[];
  };
  return entries.find(({ action, who }) => action.startsWith("PUT") && who === whose);
}

test("whoever is at a station shows it by a PIN, and is changed in two taps", async ({
  page,
  browser,
}) => {
  await becomeStation(page);
  await everybodyCanUse(page);
  await enter(page, "Odd Marren", "2581");
  await expect(page.getByText("this is not their PIN")).toBeVisible();
  await everybodyCanUse(page);
  await page.getByRole("textbox", { name: "PIN" }).fill("2580");
  await page.keyboard.press("Enter");
  await expect(here(page, "Odd Marren")).toBeVisible();
  await openLot(page, "VR-26-1033", "/flour");
  await keep(page, "silo 3");
  await expect(page.getByText("1.5 t in silo 3")).toBeVisible();
  const seen = await browser.newPage({ storageState: stateOf("technologist") });
  await seen.goto("/plant/audit");
  await seen.getByLabel("Search the audit trail").fill("stock");
  await expect(seen.getByRole("row", { name: /Odd Marren.*stock/ }).first()).toBeVisible();
  await seen.close();

  await here(page, "Odd Marren").click();
  await page.reload();
  await enter(page, "Runa Kell", "4071");
  await expect(here(page, "Runa Kell")).toBeVisible();
  await page.goto("/plant/coefficients");
  await expect(page.getByRole("heading", { name: "Coefficients" })).toBeVisible();
});

test("without a connection somebody goes on unverified, and the PIN is asked for once there is one", async ({
  page,
  context,
}) => {
  await becomeStation(page);
  await enter(page, "Odd Marren", "2580");
  await expect(here(page, "Odd Marren")).toBeVisible();
  await openLot(page, "VR-26-1063", "/flour");
  await expect(page.getByLabel("Silo or bay")).toBeVisible();
  await context.setOffline(true);
  await here(page, "Odd Marren").click();
  await enter(page, "Runa Kell", "1111");
  await expect(here(page, "Runa Kell")).toBeVisible();
  const bay = `bay ${Date.now() % 1e5}`;
  await keep(page, bay);
  await expect(page.getByText("Not yet recorded:")).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole("heading", { name: "Who is here?" })).toBeVisible();
  await enter(page, "Odd Marren", "2580");
  await expect(page.getByText(`1.5 t in ${bay}`)).toBeVisible();
  await expect(page.getByText("Not yet recorded:")).toHaveCount(0);
  const technologist = await context
    .browser()
    ?.newContext({ storageState: stateOf("technologist") });
  const seen = await technologist?.newPage();
  if (!seen) throw new Error("no browser");
  await seen.goto("/plant/audit");
  expect(await newestStock(seen, "Runa Kell")).toMatchObject({ verified: false });
  await seen.getByLabel("Search the audit trail").fill("Runa Kell");
  await expect(seen.getByText("Runa Kell, unverified").first()).toBeVisible();
  await technologist?.close();
});

test("a station nobody touches asks who is there", async ({ page }) => {
  await page.clock.install();
  await becomeStation(page, "2");
  await enter(page, "Odd Marren", "2580");
  await expect(here(page, "Odd Marren")).toBeVisible();
  await page.clock.fastForward("01:30");
  await page.getByRole("link", { name: "Ironpeel" }).click();
  await page.clock.fastForward("01:30");
  await expect(here(page, "Odd Marren")).toBeVisible();
  await page.clock.fastForward("01:00");
  await expect(page.getByRole("heading", { name: "Who is here?" })).toBeVisible();
});
