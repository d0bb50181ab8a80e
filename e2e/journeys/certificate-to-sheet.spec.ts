import type { Page } from "@playwright/test";
import { certificate, drop, expect, GOOD, link, pages, test } from "./plant";

test("a certificate becomes tonight's mixing sheet", async ({ page }) => {
  await page.goto("/");
  await drop(page, certificate("VR-E2E-1", GOOD));
  await expect(page.getByRole("heading", { name: "Import certificate" })).toBeVisible();
  await expect(page.getByLabel("Flour", { exact: true })).toHaveValue(/.+/);

  // Each reading on its basis, on 14 % and on dry matter.
  const protein = page.getByRole("row").filter({ has: page.getByLabel("value, row 2") });
  await expect(protein).toContainText("12.98");
  await expect(protein).toContainText("15.12");

  // Corrected inline, judged as it is typed.
  await page.getByLabel("value, row 3").fill("0,70");
  await expect(
    page.getByRole("row").filter({ has: page.getByLabel("value, row 3") }),
  ).toContainText("0.06 above the maximum of 0.64");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByLabel("value, row 3")).toHaveValue("0,61");

  // A reload loses nothing.
  await page.reload();
  await expect(page.getByLabel("Lot", { exact: true })).toHaveValue("VR-E2E-1");
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByRole("heading", { name: "VR-E2E-1" })).toBeVisible();
  await expect(page.getByText("● in").first()).toBeVisible();

  // A product from this lot.
  await page.getByRole("link", { name: "Ironpeel" }).click();
  await page.getByRole("link", { name: "Deck Roll 60 Line 2" }).click();
  await page.getByLabel("Selected lot").selectOption({ label: "VR-E2E-1 ● in" });
  await expect(link(page, "Flour")).toContainText("VR-E2E-1");
  await page.getByRole("radio", { name: "pieces" }).click();
  await page.getByLabel("Pieces wanted").fill("4000");
  await page.keyboard.press("Enter");
  await expect(page.getByText("2 of them")).toBeVisible();

  await page.keyboard.press("Escape");
  await link(page, "Water").click();
  await expect(page.getByRole("figure", { name: "Absorption build-up" })).toBeVisible();
  await expect(page.getByRole("cell", { name: "the lot's own moisture, 14.1 %" })).toBeVisible();

  await link(page, "Floor").click();
  const sheet = page.getByRole("article", { name: "Mixing sheet" });
  await expect(sheet).toContainText("VR-E2E-1");
  const salt = sheet.getByRole("listitem").filter({ hasText: "Salt in" }).first();
  await expect(salt).toContainText("at 75 % of mixing");
  await expect(salt).toContainText("salt");
  await expect(sheet).toContainText("Guard shut");

  await page.getByRole("button", { name: "Plan this batch" }).click();
  await expect(page).toHaveURL(/\/batches\/[0-9a-f-]{36}/);
  await expect(page.getByText("VR-E2E-1, revision 1")).toBeVisible();
  const planned = await sheet.innerText();
  await page.goto(new URL(page.url()).pathname);
  await expect(sheet).toContainText("VR-E2E-1");
  expect(await sheet.innerText()).toBe(planned);
  expect(pages(await page.pdf({ format: "A4" }))).toBe(1);
});

interface RequirementCheck {
  property: string;
  label: string;
  unit: string;
  basis: "as_is" | "fourteen" | "dry_matter" | null;
  min: number | null;
  max: number | null;
  value: number | null;
  fringe_min: number;
  fringe_max: number;
}
const BASIS = { as_is: "as is", fourteen: "14 %", dry_matter: "dry matter" };

/** A lot of long ago like another, each reading of its specification put where it is wanted. */
async function lotLike(page: Page, id: string, verdict: "in" | "borderline" | "out") {
  const like = await (await page.request.get(`/api/v1/lots/${id}`)).json();
  const rules = like.certificate.assessment.checks as RequirementCheck[];
  const at = (rule: RequirementCheck) => {
    const [min, max] = [rule.min, rule.max];
    if (verdict === "out" && max !== null) return max + 3 * (rule.fringe_max || max * 0.02);
    if (verdict === "out" && min !== null) return min - 3 * (rule.fringe_min || min * 0.02);
    if (verdict === "borderline") return max ?? min ?? rule.value;
    if (max !== null && min !== null) return (min + max) / 2;
    if (max !== null) return max - 3 * (rule.fringe_max || max * 0.02);
    return min !== null ? min + 3 * (rule.fringe_min || min * 0.02) : rule.value;
  };
  const asked = rules.flatMap((rule) => {
    const value = at(rule);
    const { label: property, unit } = rule;
    const basis = rule.basis ? BASIS[rule.basis] : "";
    return value === null ? [] : [{ property, unit, basis, value: String(value), method: "" }];
  });
  const stated = new Set(rules.map((rule) => rule.property));
  const others = (like.certificate.rows as { property: string; written: object }[])
    .filter((row) => !stated.has(row.property))
    .map((row) => row.written);
  const rows = [...asked, ...others];
  const [lot, revision] = [crypto.randomUUID(), crypto.randomUUID()];
  const body = {
    flour_id: like.flour.id,
    code: `SHEET-${lot.slice(0, 8)}`,
    milled: "2020-03-02",
    delivered: "2020-03-05",
    tonnes: "1",
    number: 1,
    decimal_mark: ".",
    rows,
    signed: { reason: "a sheet of one page" },
  };
  const path = `/api/v1/lots/${lot}/revisions/${revision}`;
  const recorded = await page.request.put(path, {
    data: body,
    headers: { origin: new URL((await page.request.get("/healthz")).url()).origin },
  });
  expect(recorded.status(), await recorded.text()).toBe(200);
  const judged = await (await page.request.get(`/api/v1/lots/${lot}`)).json();
  expect(judged.certificate.assessment.verdict).toBe(verdict);
  return lot;
}

test("every product's sheet is one A4 page, whatever the lot, and what is wrong with it stays on the certificate", async ({
  page,
}) => {
  test.slow();
  const products = (await (await page.request.get("/api/v1/products")).json()) as {
    slug: string;
    flour_id: string;
  }[];
  expect(products.length).toBeGreaterThan(7);
  const lots = new Map<string, string[]>();
  for (const { slug, flour_id } of products) {
    if (!lots.has(flour_id)) {
      const { lots: all } = await (
        await page.request.get(`/api/v1/lots?flour_id=${flour_id}`)
      ).json();
      const made: string[] = [];
      // Of a flour from a bag nothing is asked: it has no verdict.
      if (all[0].verdict === null) made.push(all[0].id);
      else
        for (const verdict of ["in", "borderline", "out"] as const) {
          made.push(await lotLike(page, all[0].id, verdict));
        }
      lots.set(flour_id, made);
    }
    for (const lot of lots.get(flour_id) ?? []) {
      await page.goto(`/floor?product=${slug}&lot=${lot}&tap=26&flour=34`);
      const sheet = page.getByRole("article", { name: "Mixing sheet" });
      await expect(sheet).toBeVisible();
      await expect(sheet.getByText(/(above|below) the (minimum|maximum) of/)).toHaveCount(0);
      expect(pages(await page.pdf({ format: "A4" })), `${slug}, ${lot}`).toBe(1);
    }
  }
});

test("a certificate is typed in by keyboard alone", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Select a product" })).toBeVisible();
  await page.keyboard.press("n");
  await expect(page.getByRole("heading", { name: "Import certificate" })).toBeVisible();
  // A browser forgets what was typed into a choice after a second: on a slow machine, type again.
  const flour = page.getByLabel("Flour", { exact: true });
  await expect(flour.locator("option", { hasText: "Tarn Plain" })).toBeAttached();
  await expect(async () => {
    await flour.focus();
    await page.keyboard.type("Tarn P");
    await expect(flour.locator("option:checked")).toContainText("Tarn Plain", { timeout: 500 });
  }).toPass();
  await page.keyboard.press("Tab");
  for (const text of ["VP-E2E-1", "6.11.2026", "2026-11-08", "12,5"]) {
    await page.keyboard.type(text);
    await page.keyboard.press("Tab");
  }
  await page.getByRole("button", { name: "A row for each property" }).press("Enter");
  const values = ["14,2", "10,4", "0,55", "320", "5,6", "56,5", "165"];
  for (const [at, value] of values.entries()) {
    await page.getByLabel(`value, row ${at + 1}`).focus();
    await page.keyboard.type(value);
  }
  const save = page.getByRole("button", { name: "Save lot" });
  await expect(save).toBeEnabled();
  await save.press("Enter");
  await expect(page.getByRole("heading", { name: "VP-E2E-1" })).toBeVisible();

  // Put right later: a new revision with its reason.
  await page.getByRole("button", { name: "Correct this certificate" }).click();
  await page.getByLabel("value, row 1").fill("14,6");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.getByText("why is it changed?").first()).toBeVisible();
  await page.getByLabel("Reason for the correction").fill("read from the wrong line");
  await page.getByRole("button", { name: "Save correction" }).click();
  await expect(page.getByText("revision 2, Runa Kell")).toBeVisible();
});

test("a lot that is out is planned only once it is released, and a correction asks again", async ({
  page,
}) => {
  const bad = GOOD.map((row) =>
    row.startsWith("damaged starch") ? row.replace("8,4", "11,2") : row,
  );
  await page.goto("/");
  await drop(page, certificate("VR-E2E-OUT", bad));
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByRole("heading", { name: "VR-E2E-OUT" })).toBeVisible();
  const lot = new URL(page.url()).searchParams.get("lot") ?? "";
  const floor = `/floor?product=deck-roll-60&lot=${lot}`;
  const plan = page.getByRole("button", { name: "Plan this batch" });

  await page.goto(floor);
  const sheet = page.getByRole("article", { name: "Mixing sheet" });
  await expect(sheet.getByText(/is not released: .*nobody has released it/)).toBeVisible();
  await expect(page.getByText(/cannot be planned: .*nobody has released it/)).toBeVisible();
  await expect(plan).toBeDisabled();
  await page.getByRole("link", { name: "Decide its release" }).click();
  await page.getByLabel("Reason", { exact: true }).fill("for rolls, water held back");
  await page.getByRole("button", { name: "Release with note" }).click();
  await expect(page.getByText(/^released with note by Runa Kell/)).toBeVisible();
  await page.goto(floor);
  await expect(plan).toBeEnabled();
  await expect(sheet.getByText(/released with note by Runa Kell, .*: for rolls/)).toBeVisible();

  await page.goto(`/flour?lot=${lot}`);
  await page.getByRole("button", { name: "Correct this certificate" }).click();
  await page.getByLabel("value, row 6").fill("11,4");
  await page.getByLabel("Reason for the correction").fill("a digit was misread");
  await page.getByRole("button", { name: /^Save/ }).click();
  await expect(page.getByText("revision 2, Runa Kell")).toBeVisible();
  await page.goto(floor);
  await expect(sheet.getByText(/released for an earlier certificate/)).toBeVisible();
  await expect(plan).toBeDisabled();
});
