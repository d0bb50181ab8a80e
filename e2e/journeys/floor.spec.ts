import type { APIRequestContext, BrowserContext, Page } from "@playwright/test";
import { stateOf } from "../signIn";
import { everybodyCanUse, expect, test } from "./plant";

test.use({ storageState: stateOf("technologist"), viewport: { width: 1280, height: 800 } });

interface Run {
  stages: { stage: string; label: string }[];
  record: { placed: { kind: string }[]; unplaced: unknown[] };
  state: string;
}

/** Plans a batch of rolls; its id. */
async function plan(page: Page, product = "deck-roll-60"): Promise<string> {
  await page.goto(`/floor?product=${product}`);
  await page.getByRole("button", { name: "Plan this batch" }).click();
  await page.waitForURL(/\/batches\//);
  const id = /batches\/([0-9a-f-]+)/.exec(page.url())?.[1];
  if (!id) throw new Error(page.url());
  return id;
}

async function runOf(request: APIRequestContext, id: string): Promise<Run> {
  return (await (await request.get(`/api/v1/batches/${id}/run`)).json()) as Run;
}

/** A number by the thumb. */
async function key(page: Page, digits: string, confirm = "Record") {
  const pad = page.getByRole("dialog");
  for (const digit of digits) await pad.getByRole("button", { name: digit, exact: true }).click();
  await pad.getByRole("button", { name: confirm }).click();
}

test("a batch runs from its sheet to its finish, held and undone on the way", async ({ page }) => {
  const id = await plan(page);
  await page.getByRole("link", { name: "Run this batch" }).click();
  await expect(page.getByRole("button", { name: "Start", exact: true })).toBeVisible();
  await everybodyCanUse(page);
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByText("running", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: /weighed as planned$/ }).click();
  await page.getByRole("button", { name: "Pick-up done" }).click();
  await page.getByRole("button", { name: "windowpane" }).click();
  await page.getByRole("button", { name: "Development done" }).click();

  await page.getByRole("button", { name: "Reading" }).click();
  await page.getByRole("button", { name: "Dough temperature" }).click();
  await key(page, "79.7");
  await expect(page.getByRole("alert")).toContainText("26.5?");
  await page.getByRole("button", { name: "Discard" }).click();
  await page.getByRole("button", { name: "Reading" }).click();
  await page.getByRole("button", { name: "Dough temperature" }).click();
  await key(page, "26.5");
  await expect(page.getByText("Dough temperature 26.5 °C").first()).toBeVisible();

  await page.getByRole("button", { name: "Consistency" }).click();
  await page.getByRole("button", { name: "too stiff", exact: true }).click();
  await page.getByRole("button", { name: "Water added" }).click();
  await page.getByRole("button", { name: "in points on flour" }).click();
  await key(page, "1");
  await page.getByRole("button", { name: /^Undo: .*water added/ }).click();
  await expect(page.getByRole("button", { name: /^Undo: Dough too stiff/ })).toBeVisible();

  await page.getByRole("button", { name: "Hold" }).click();
  await page.getByRole("button", { name: "divider", exact: true }).click();
  await expect(page.getByText("Held", { exact: true }).first()).toBeVisible();
  await page.getByRole("button", { name: "Resume" }).click();
  const { stages } = await runOf(page.request, id);
  for (const { label } of stages.slice(2)) {
    await page.getByRole("button", { name: `${label} done` }).click();
  }
  await page.getByRole("button", { name: /^Good pieces/ }).click();
  await key(page, "2500", "Set");
  await page.getByRole("button", { name: /^Rejected pieces/ }).click();
  await key(page, "12", "Set");
  await page.getByRole("button", { name: "shape", exact: true }).click();
  await page.getByRole("button", { name: "Finish the batch" }).click();
  await expect(page.getByText("Finished", { exact: false }).first()).toBeVisible();
  await expect.poll(async () => (await runOf(page.request, id)).state).toBe("finished");
  const { record } = await runOf(page.request, id);
  expect(record.unplaced).toEqual([]);
  await page.goto(`/results/compare?batches=${id}`);
  await expect(page.getByRole("row", { name: /^Mixing energy/ })).toBeVisible();
  await everybodyCanUse(page);
});

test.describe("a tablet that loses its connection", () => {
  test.use({ serviceWorkers: "allow", viewport: { width: 1280, height: 800 } });

  test("goes on through ten stamps and a reload, and catches up", async ({ page, context }) => {
    const id = await plan(page);
    await page.goto(`/batches/${id}/run`);
    await page.getByRole("button", { name: "Start", exact: true }).click();
    await expect(page.getByText("running", { exact: true })).toBeVisible();
    // The page and all it is made of are kept by now.
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
      const kept = async () => {
        const cache = await caches.open("ironpeel-shell");
        return (await cache.keys()).some(({ url }) => url.includes("runPages"));
      };
      while (!(await kept())) await new Promise((resolve) => setTimeout(resolve, 100));
    });
    await expect(page.getByText("everything is sent")).toBeAttached();
    const { stages } = await runOf(page.request, id);
    await context.setOffline(true);
    for (const { label } of stages) {
      await page.getByRole("button", { name: `${label} done` }).click();
    }
    await page.getByRole("button", { name: "Consistency" }).click();
    await page.getByRole("button", { name: "right", exact: true }).click();
    const many = stages.length + 1;
    await expect(page.getByText(`${many} not yet sent, from`)).toBeVisible();
    await page.reload();
    await expect(page.getByText(`${many} not yet sent, from`)).toBeVisible();
    await expect(page.getByRole("button", { name: /^Good pieces/ })).toBeVisible();
    await context.setOffline(false);
    await expect(page.getByText("everything is sent")).toBeAttached({ timeout: 60_000 });
    const { record } = await runOf(page.request, id);
    expect(record.placed.filter(({ kind }) => kind === "stage_end")).toHaveLength(stages.length);
    expect(record.unplaced).toEqual([]);
  });
});

test("two tablets on one batch: what met is shown to a person", async ({ page, browser }) => {
  const id = await plan(page);
  await page.goto(`/batches/${id}/run`);
  await page.getByRole("button", { name: "Start", exact: true }).click();
  const second: BrowserContext = await browser.newContext({ storageState: stateOf("floor") });
  const other = await second.newPage();
  await other.goto(`/batches/${id}/run`);
  await expect(other.getByRole("button", { name: "Pick-up done" })).toBeVisible();
  // The other one hears nothing of the first stamp, and stamps the same.
  await second.setOffline(true);
  await page.getByRole("button", { name: "Pick-up done" }).click();
  await expect(page.getByRole("button", { name: "Development done" })).toBeVisible();
  await other.getByRole("button", { name: "Pick-up done" }).click();
  await second.setOffline(false);
  await expect(page.getByText("the stage was over already")).toBeVisible();
  await expect(other.getByText("the stage was over already")).toBeVisible();
  await page.getByRole("button", { name: "Set aside" }).click();
  await expect(page.getByText("the stage was over already")).toBeHidden();
  await second.close();
});

test("the board shows every line, and a line stops with one press", async ({ page }) => {
  await page.goto("/board");
  await expect(page.getByRole("figure", { name: "Bench by the clock" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "What to do, late first" })).toBeVisible();
  await everybodyCanUse(page);
  await page
    .getByRole("link", { name: /^Holm Tin, running/ })
    .first()
    .click();
  await expect(page.getByRole("figure", { name: /Sample jar/ })).toBeVisible();
  await page.getByRole("button", { name: "Put in the cold" }).click();
  await expect(page.getByRole("button", { name: "Taken out of the cold" })).toBeVisible();
  await page.getByRole("button", { name: /^Undo: around the dough/ }).click();
  await expect(page.getByRole("button", { name: "Put in the cold" })).toBeVisible();
});

test("a learned water correction is taken over and moves the sheet, and is put back", async ({
  page,
}) => {
  await page.goto("/results/learned?of=ferry-tin-short&product=ferry-tin-short");
  const water = page.getByRole("region", { name: "Water correction" });
  await expect(water.getByRole("figure")).toBeVisible();
  await everybodyCanUse(page);
  await water.getByLabel("Reason").fill("eighteen months alike");
  await water.getByRole("button", { name: /^Take over/ }).click();
  await expect(water.getByText(/^In use on the sheet/)).toBeVisible();
  await page.goto("/water?product=ferry-tin-short");
  await expect(page.getByText("water correction learned on this line").first()).toBeVisible();
  await page.goto("/results/learned?of=ferry-tin-short&product=ferry-tin-short");
  await water.getByLabel("Reason").fill("looked at it again");
  await water.getByRole("button", { name: "Reset" }).click();
  await expect(water.getByText(/^Nobody took it over/)).toBeVisible();
});

test("from a lot to all its batches, and from a batch to its plan", async ({ page }) => {
  await page.goto("/results/recall");
  await page.getByLabel("Lot").fill("VR-26-1063");
  await page.getByRole("button", { name: /^VR-26-1063/ }).click();
  await expect(page.getByRole("table", { name: /VR-26-1063/ })).toBeVisible();
  await everybodyCanUse(page);
  const file = await page.request.get("/api/v1/batch-export?format=csv&lot=VR-26-1063");
  expect((await file.text()).split("\n").length).toBeGreaterThan(2);
  await page.goto("/results?state=finished");
  await page.getByRole("checkbox").nth(1).check();
  await page.getByRole("link", { name: "Compare with its plan" }).click();
  await expect(page.getByRole("columnheader", { name: "how far apart" })).toBeVisible();
  await page.goto("/results/charts?of=deck-roll-60");
  await expect(page.getByRole("figure", { name: /^Dough temperature over/ })).toBeVisible();
  await everybodyCanUse(page);
  await page.goto("/results/quarter");
  await expect(page.getByRole("row", { name: /^Pieces rejected/ })).toBeVisible();
});
