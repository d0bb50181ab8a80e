import type { APIRequestContext, Page } from "@playwright/test";
import { stateOf } from "../signIn";
import { everybodyCanUse, expect, pages, test } from "./plant";

test.use({ storageState: stateOf("technologist"), viewport: { width: 1280, height: 800 } });

const SIDED = ["Volume", "Crust colour", "Break and shred, or cut opening", "Crumb openness"];
const ONE_SIDED = [
  "Shape and symmetry",
  "Crust character",
  "Evenness and holes",
  "Crumb colour",
  "Crumb texture",
  "Stickiness",
  "Slicing and buttering",
  "Smell and flavour",
];

/** A photograph of more pixels than are kept, as a camera writes it. */
async function large(page: Page): Promise<Buffer> {
  const base64 = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [2400, 1800];
    canvas.getContext("2d")?.fillRect(300, 300, 1800, 1200);
    return canvas.toDataURL("image/png").split(",")[1] ?? "";
  });
  return Buffer.from(base64, "base64");
}

test("two judges mark a coded loaf alone and meet in the batch", async ({ browser, page }) => {
  await page.goto("/results/scores?of=kesh-dark");
  await page.getByRole("link", { name: "judge it" }).first().click();
  await expect(page.getByText("Nobody has judged it yet.")).toBeVisible();
  const address = page.url();
  await page.getByRole("textbox", { name: "Loaves" }).fill("1");
  await page.getByLabel("Met twice, unknowing").fill("0");
  await page.getByRole("button", { name: "Set out under new codes" }).click();
  await page.getByRole("button", { name: /^Judge sample/ }).click();
  await page.waitForURL(/\/judge\//);
  const sheet = new URL(page.url()).pathname;
  await everybodyCanUse(page);
  const fill = async (mark: string) => {
    for (const name of [...SIDED, ...ONE_SIDED]) {
      const scale = page.getByRole("radiogroup", { name: new RegExp(`^\\d+\\. ${name}`) });
      await scale.getByText(mark, { exact: true }).click();
    }
  };
  await fill("4");
  // A side is asked wherever it counts, at its place.
  await page.getByRole("button", { name: "Record these marks" }).click();
  await expect(page.getByText("say whether it is too little or too much").first()).toBeVisible();
  for (const name of SIDED) {
    await page
      .getByRole("radiogroup", { name: `side of ${name}` })
      .getByRole("radio", { name: "− too little" })
      .check();
  }
  // What is marked survives a reload.
  await page.reload();
  await expect(page.getByText(/not marked/)).toHaveCount(0);
  expect(pages(await page.pdf({ format: "A4" }))).toBe(1);
  // A file that only calls itself a photograph is refused; a photograph is made smaller.
  const choose = page.getByLabel("Choose a file");
  await choose.setInputFiles({
    name: "loaf.png",
    mimeType: "image/png",
    buffer: Buffer.from("<svg/>"),
  });
  await expect(page.getByText("loaf.png calls itself a photograph")).toBeVisible();
  await choose.setInputFiles({
    name: "loaf.png",
    mimeType: "image/png",
    buffer: await large(page),
  });
  const face = page.getByRole("button", { name: /, cut face$/ });
  await expect(face).toBeVisible();
  await face.click();
  const shown = page.getByRole("dialog").getByRole("img", { name: /, cut face$/ });
  await expect
    .poll(() => shown.evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBe(1600);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Record these marks" }).click();
  await expect(page.getByText("12 marks recorded")).toBeVisible();

  const other = await browser.newContext({ storageState: stateOf("floor") });
  const floor = await other.newPage();
  await floor.goto(sheet);
  const flavour = floor.getByRole("radiogroup", { name: /Smell and flavour/ });
  await flavour.getByText("1", { exact: true }).click();
  await floor.getByRole("button", { name: "Record these marks" }).click();
  await expect(floor.getByText("1 mark recorded")).toBeVisible();
  await other.close();

  await page.goto(address);
  await expect(page.getByText("of 100", { exact: false }).first()).toBeVisible();
  const row = page.getByRole("row", { name: /Smell and flavour/ });
  await expect(row).toContainText("they disagree: look once more, blind");
  await expect(page.getByRole("img", { name: /loaf 1, cut face$/ })).toBeVisible();
  await everybodyCanUse(page);
});

test("a product's standard moves what a measurement is worth", async ({ page }) => {
  await page.goto("/results/standard?of=causeway-stick");
  await page.getByLabel("target of Volume").fill("5");
  await page.getByLabel("a 5 of Volume").fill("fills its sleeve");
  await page.getByLabel("Why").fill("agreed at the bench");
  await page.getByRole("button", { name: "Save revision 1" }).click();
  await expect(page.getByText("1 revision")).toBeVisible();
  await expect(page.getByLabel("range of Volume")).toHaveValue("1.25");
  await everybodyCanUse(page);
});

test("the loaf that smeared is found, its cause confirmed, and the next diagnosis begins from it", async ({
  page,
}) => {
  const asked = await page.request.get(
    "/api/v1/batches?product=ferry-tin-800&lot=VR-26-1033&state=finished",
  );
  const { batches } = (await asked.json()) as { batches: { id: string }[] };
  const id = batches[0]?.id ?? "";
  await page.goto(`/results/faults?fault=smearing&baked=tin&batch=${id}`);
  const causes = page.getByRole("region", { name: "Causes" });
  await expect(causes).toContainText(/^(Very likely|Likely)/);
  await expect(causes.getByRole("listitem").first()).toContainText(/damaged-starch/i);
  await causes.getByRole("listitem").first().getByRole("button").first().click();
  await page.getByLabel("What was seen").first().fill("paste on the blades");
  // Two batches after it were finished, so a change can have cured it.
  await page.getByRole("button", { name: "The change cured it" }).first().click();
  await expect(page.getByText("by a change that was tried, Runa Kell")).toBeVisible();
  await expect(page.getByText(/begins from 1 confirmed batch/)).toBeVisible();
  await everybodyCanUse(page);
  // Doughs already made are baked longer: the plan with it stands in hand, and is undone.
  await causes.getByRole("button", { name: "Open as a what-if" }).first().click();
  await expect(page).toHaveURL(/\/water\?.*water=/);
  await expect(page.getByLabel("Override: dough absorption, % on flour")).not.toHaveValue("");
  await page.goto("/results?fault=smearing");
  await expect(page.getByRole("link", { name: "Ferry Tin 800" }).first()).toBeVisible();
});

test("a complaint's product and day name its batches, and a weight of its fault is the plant's own", async ({
  page,
}) => {
  const asked = await page.request.get("/api/v1/batches?product=causeway-stick&state=finished");
  const { batches } = (await asked.json()) as { batches: { id: string; planned_for: string }[] };
  const [batch] = batches;
  await page.goto("/results/faults");
  await page.getByLabel("Product").selectOption({ label: "Causeway Stick" });
  await page.getByLabel("Made on").fill("2020-02-03");
  await expect(page.getByLabel("Batch")).toContainText("none was made then");
  await page.getByLabel("Made on").fill(batch?.planned_for.slice(0, 10) ?? "");
  await expect(page.getByLabel("Batch").locator("option")).toHaveCount(2);
  await page.getByLabel("Batch").selectOption(batch?.id ?? "");
  await page.getByLabel("What is wrong").selectOption({ label: "loaf: Gummy crumb" });
  const causes = page.getByRole("region", { name: "Causes" });
  await causes.getByRole("link", { name: "Weights, thresholds and ratios" }).click();
  await page.getByLabel("Search coefficients").fill("late arrival: weight");
  await page.getByRole("button", { name: /^Change Under-baked.*weight/ }).click();
  const dialog = page.getByRole("dialog");
  await expect(dialog).toContainText("A plant value may be 0.25 to 16");
  await dialog.getByLabel("Here,").fill("3");
  await dialog.getByLabel("Reason for the plant value").fill("a short oven");
  await dialog.getByRole("button", { name: "Save plant value" }).click();
  await expect(dialog).toBeHidden();
  await everybodyCanUse(page);
  await page.goto(`/results/faults?fault=gummy&batch=${batch?.id}`);
  await expect(causes).toContainText(/this plant has 1 number of its own: .* 3 \(a short oven\)/);
  await page.goto("/plant/coefficients?own=yes");
  await page.getByRole("button", { name: /^Change Under-baked.*weight/ }).click();
  await dialog.getByRole("button", { name: "Reset to default" }).click();
  await expect(dialog).toBeHidden();
});

test("a trial of four doughs is baked, judged by two and one of them kept", async ({
  browser,
  page,
  baseURL,
}) => {
  test.slow();
  await page.goto("/dough/trials?product=holm-tin");
  await page.getByRole("button", { name: "a more open crumb" }).click();
  await page.getByLabel("Try 3 points more water").check();
  await page.getByLabel("Try one more set of folds").check();
  await page.getByRole("button", { name: "Save trial" }).click();
  await expect(page.getByRole("heading", { name: "Trial of Holm Tin" })).toBeVisible();
  const judged = page.getByRole("region", { name: "Judged" });
  await expect(judged).toContainText("Nobody has judged it yet.");
  await page.getByRole("textbox", { name: "Loaves" }).fill("1");
  await page.getByLabel("Met twice, unknowing").fill("0");
  await page.getByRole("button", { name: "Set out under new codes" }).click();
  const samples = page.getByRole("table", { name: "Samples" });
  await expect(samples.getByRole("row")).toHaveCount(5);
  await expect(samples).not.toContainText("bake 1");
  await page.getByLabel(/show which dough is under which code/).check();
  const trial = new URL(page.url()).pathname.split("/").at(-1);
  // The judges' sheets come as their tablets send them; one is filled in by hand elsewhere.
  const floor = await browser.newContext({ storageState: stateOf("floor") });
  const content = (await large(page)).toString("base64");
  const rows = samples.getByRole("row").filter({ hasText: /bake 1/ });
  for (const row of await rows.all()) {
    const [code, dough] = await row.getByRole("cell").allInnerTexts();
    const better = dough?.startsWith("B") ? 4.5 : 3;
    const blank = await (await page.request.get(`/api/v1/samples/${code?.trim()}`)).json();
    const marks = blank.lines.map((line: { of: string; two_sided: boolean }) => ({
      of: line.of,
      mark: better,
      ...(line.two_sided && { sign: "too_little" }),
    }));
    const headers = { origin: baseURL ?? "" };
    const send = async (judge: APIRequestContext, path: string, data: object) => {
      const answer = await judge.put(`${path}/${crypto.randomUUID()}`, { data, headers });
      expect(answer.ok(), await answer.text()).toBe(true);
    };
    for (const judge of [page.request, floor.request])
      await send(judge, "/api/v1/scores", { code: code?.trim(), marks });
    const photographs = `/api/v1/samples/${code?.trim()}/photographs`;
    await send(page.request, photographs, { shows: "cut_face", content });
  }
  await floor.close();
  await page.goto(`/trials/${trial}`);
  const table = page.getByRole("table", { name: "The doughs as they were judged" });
  await expect(table.getByRole("row", { name: /^beside the dough as it is/ })).toContainText(
    "+37.5 points (1 bake of 1 loaf each): real",
  );
  const faces = table.getByRole("row", { name: /^cut face/ });
  await expect(faces.getByRole("img")).toHaveCount(4);
  await everybodyCanUse(page);
  await expect(page.getByLabel("Dough to keep")).toHaveValue("1");
  await expect(page.getByLabel("Why it is kept")).toHaveValue(/3 points more water: B 8[78], A 50/);
  await page.getByRole("button", { name: "Keep B" }).click();
  await expect(judged).toContainText("kept B, 3 points more water");
  await page.goto("/dough/revisions?product=holm-tin");
  await expect(
    page.getByText(/trial of .*3 points more water: B 8[78], A 50 of 100/),
  ).toBeVisible();
});
