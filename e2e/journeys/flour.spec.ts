import { daysAgo, expect, link, openLot, pages, test } from "./plant";

/** A table as a mill sends it, a lot in each row. */
function table(codes: string[]): string {
  const rows = codes.map(
    (code, at) =>
      `${code},Kesh Rye,${String((at % 28) + 1).padStart(2, "0")}/10/2026,14.1,12.${at % 9},"0,61",${330 + (at % 20)}`,
  );
  return [
    'Lot,Flour,Milled on,Moisture %,Protein 14 %,"Ash, % d.m.",Falling number s',
    ...rows,
  ].join("\r\n");
}

const months = (name: string, text: string) => ({
  name,
  mimeType: "text/csv",
  buffer: Buffer.from(`\ufeff${text}`),
});

test("a month's certificates are taken in, corrected once, and never doubled", async ({ page }) => {
  const codes = Array.from({ length: 1200 }, (_, at) => `E2E-${String(at).padStart(4, "0")}`);
  const file = months(
    "october.csv",
    `${table(codes)}\r\nE2E-BAD,Nobody's,01/10/2026,14,12,0.6,330\r\n`,
  );
  await page.goto("/flour/import");
  await page.locator("input[type=file]").first().setInputFiles(file);
  await expect(page.getByLabel("Ash, % d.m. means")).toHaveValue("ash");
  await expect(page.getByText("milled 2026-10-01").first()).toBeVisible();
  await page.getByLabel("Falling number s means").selectOption("leave it out");
  await expect(page.getByText("falling number 330 s")).toHaveCount(0);
  await page.getByLabel("Mill", { exact: true }).fill("Vennick Roller Mill");
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("1 200 recorded")).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText("1 not imported")).toBeVisible();
  await expect(page.getByText("no flour called Nobody's is on record")).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save the faults as CSV" }).click();
  expect((await download).suggestedFilename()).toBe("rows-not-taken-in.csv");

  await page.reload();
  await page.locator("input[type=file]").first().setInputFiles(file);
  await expect(page.getByText("Read as Runa Kell corrected it last time")).toBeVisible();
  await expect(page.getByLabel("Falling number s means")).toHaveValue("");
  await page.getByRole("button", { name: "Import all rows" }).click();
  await expect(page.getByText("0 recorded")).toBeVisible();
  await expect(page.getByText("1 200 on record already")).toBeVisible({ timeout: 30_000 });
});

test("the damaged lot is found by drift, opened, and explained", async ({ page }) => {
  // Another flour's chart, which no other journey adds lots to, has nothing to hide.
  await page.goto("/flour/control-chart?product=causeway-stick");
  await expect(page.getByRole("radio", { name: "damaged starch" })).toBeChecked();
  await expect(page.getByRole("img", { name: /damaged starch over \d+ lots/ })).toBeVisible();
  await openLot(page, "VR-26-1033", "/flour/control-chart");
  const stray = page.getByRole("row", { name: /VR-26-1033/ });
  await expect(stray).toContainText("beyond three sigma");
  await stray.getByRole("button").click();
  await expect(page.getByRole("heading", { name: "VR-26-1033" })).toBeVisible();
  await page.getByRole("link", { name: "Compare lots" }).click();
  await expect(
    page.getByText(/^Hold back 1\.3 points: damaged starch is 0\.9 above 10 %/),
  ).toBeVisible();
  await page.getByLabel("against").selectOption("VR-26-1021");
  await expect(page).toHaveURL(/against=/);
  // The hold-back is the lot's own; what it is compared with changes the points explained alone.
  await expect(page.getByText(/^Hold back 1\.3 points.* and 3\.9 points/)).toBeVisible();
  await page.getByLabel("against").selectOption("target");
  await expect(page.getByText(/^Hold back 1\.3 points.* and 3\.8 points/)).toBeVisible();
});

test("a period is brushed on the chart and let go again", async ({ page }) => {
  await page.goto("/flour/control-chart?product=causeway-stick&property=protein");
  const chart = page.getByRole("img", { name: /^protein over 3\d lots/ });
  await expect(page).toHaveURL(/[?&]lot=/);
  const box = (await chart.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.4, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.7, box.y + 60, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole("img", { name: /^protein over (1\d|[5-9]) lots/ })).toBeVisible();
  await page.getByRole("button", { name: "The whole time" }).click();
  await expect(chart).toBeVisible();
});

test("a curve is run live, its mark moved and put back", async ({ page }) => {
  await openLot(page, "VR-26-0999", "/flour/curves");
  await page.getByLabel("Speed").selectOption("6000 times");
  await page.getByRole("button", { name: "Run", exact: true }).click();
  const mark = page.getByRole("slider", { name: "development, minutes" });
  await expect(mark).toBeVisible();
  const read = Number(await mark.getAttribute("aria-valuenow"));
  await mark.focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByRole("button", { name: "Put development back" })).toBeVisible();
  // A tenth of a minute on, to the nearest second that was drawn.
  await expect
    .poll(async () => Number(await mark.getAttribute("aria-valuenow")))
    .toBeCloseTo(read + 0.1, 1);
  await page.getByRole("button", { name: "Put development back" }).click();
  await expect(mark).toHaveAttribute("aria-valuenow", String(read));
  await expect(page.getByText("development put back, Runa Kell")).toBeVisible();
});

test("a laboratory's curve is taken in, and one that missed or disagrees says so", async ({
  page,
}) => {
  await openLot(page, "VP-26-0427", "/flour/curves");
  const rows = Array.from(
    { length: 1200 },
    (_, t) => `${t};${Math.min(512, t * 1.4) - Math.max(0, t - 400) / 10};20`,
  );
  await page
    .getByRole("region", { name: "Import a curve" })
    .or(page.locator("section", { hasText: "Import a curve" }))
    .locator("input[type=file]")
    .setInputFiles({
      name: "c.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(["time_s;fu;band_fu", ...rows].join("\n")),
    });
  await page.getByRole("button", { name: "Save curve" }).click();
  await expect(page.getByText("water is missing").first()).toBeVisible();
  await page.getByLabel("Water, ml").fill("170,5");
  await page.getByRole("button", { name: "Save curve" }).click();
  await expect(page.getByRole("row", { name: /^absorption/ })).toBeVisible();

  await openLot(page, "VR-26-1063", "/flour/curves");
  await expect(page.getByText(/repeat the titration/)).toBeVisible();
  await openLot(page, "VR-26-1028", "/flour/curves");
  await expect(page.getByRole("row", { name: /^absorption/ })).toContainText("disagrees");
  await page.getByLabel("overlay").selectOption("VR-26-1021");
  await expect(page.getByText("has no such curve")).toHaveCount(0);
});

test("a blend is moved by hand, solved, and told when it cannot be", async ({ page }) => {
  await page.goto("/flour/blend");
  for (const lot of ["VR-26-1090, Tarn Strong", "VP-26-0435, Tarn Plain"]) {
    await page.getByLabel("Add a lot").selectOption({ label: lot });
    await expect(page.getByLabel(`Share of ${lot}`, { exact: true })).toBeVisible();
  }
  await page.getByLabel("Price of VR-26-1090, Tarn Strong per t").fill("520");
  await page.getByLabel("Price of VP-26-0435, Tarn Plain per t").fill("430");
  await page.getByLabel("Share of VR-26-1090, Tarn Strong", { exact: true }).fill("40");
  await expect(page.getByText("Shares add up to 40.0 %")).toBeVisible();
  await page.getByLabel("protein on 14 %, at least").fill("11.5");
  await expect(page.getByText(/^Cheapest within the targets/)).toBeVisible();
  await page.getByRole("button", { name: "Use these shares" }).click();
  await expect(page.getByText("Shares add up to 100.0 %")).toBeVisible();

  await page.getByLabel("W, at least").fill("600");
  await expect(page.getByText("No shares of these lots meet every target.")).toBeVisible();
  await expect(page.getByText(/W can be at most \d+/)).toBeVisible();
  await page.getByLabel("W, at least").fill("");

  await page.getByLabel("Name of the blend").fill("Tarn Middle");
  await page.getByRole("button", { name: "Save blend" }).click();
  await expect(page.getByText("the lot needs its code").first()).toBeVisible();
  await page.getByLabel("Its lot").fill("TM-26-001");
  await page.getByRole("button", { name: "Save blend" }).click();
  await expect(page.getByRole("heading", { name: "TM-26-001" })).toBeVisible();
  await expect(page.getByText("Blended of")).toBeVisible();
});

test("a specification is revised from a proposal, compared, and judged by at once", async ({
  page,
}) => {
  await openLot(page, "RS-26-0505", "/flour/specification");
  await page.getByLabel("moisture, max").fill("12");
  // A should that is missed bars no lot: other journeys plan with this one.
  await page.getByLabel("moisture, must or should").selectOption("should");
  await page.getByRole("button", { name: "Save revision 2" }).click();
  await expect(page.getByText("why is it changed?").first()).toBeVisible();
  await page.getByLabel("Reason for the revision").fill("damp store");
  await page.getByRole("button", { name: "Take falling number from history" }).click();
  await page.getByRole("button", { name: "Save revision 2" }).click();
  await expect(page.getByLabel("revision", { exact: false }).first()).toContainText(
    "2, Runa Kell: damp store",
  );
  const compared = page.locator("section", { hasText: "Revision 2 against" });
  await expect(compared.getByRole("row", { name: /moisture/ })).toContainText("narrower");
  await page.getByRole("link", { name: "Certificate" }).click();
  await expect(page.getByRole("heading", { name: "RS-26-0505" })).toBeVisible();
  await expect(page.getByRole("row", { name: /^moisture/ })).toContainText("out");
});

test("a flour's price is revised, and what it was stays readable", async ({ page }) => {
  await page.goto("/flour/specification?product=causeway-stick");
  await page.getByRole("button", { name: "change", exact: true }).click();
  await page.getByLabel("Price of a tonne").fill("1 612,5");
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(page.getByText("why is it changed?").first()).toBeVisible();
  await page.getByLabel("Reason for the change").fill("new contract");
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(page.getByText(/1\s?612\.50 EUR a tonne/)).toBeVisible();
  await page.getByRole("button", { name: "2 revisions" }).click();
  const newest = page.getByRole("listitem").filter({ hasText: "Revision 2" });
  await expect(newest).toContainText("Runa Kell: new contract");
  await expect(newest).toContainText(/price of a tonne \d+ → 1612.5/);
});

test("a new flour is recorded and something is asked of it", async ({ page }) => {
  await page.goto("/flour/specification");
  await page.getByRole("button", { name: "Another flour" }).click();
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(page.getByText("the flour needs a name").first()).toBeVisible();
  await page.getByLabel("Name", { exact: true }).fill("Holm Einkorn");
  await page.getByLabel("Mill", { exact: true }).fill("Brae Stone Mill");
  await page.getByLabel("Grain", { exact: true }).selectOption("einkorn");
  await page.getByLabel("Extraction").fill("100");
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(page.getByText("There is no requirement for Holm Einkorn yet")).toBeVisible();
  await page.getByRole("button", { name: "begin with moisture" }).click();
  await page.getByLabel("moisture, max").fill("14,0");
  await page.getByRole("button", { name: "Save revision 1" }).click();
  await expect(page.getByLabel("revision", { exact: false }).first()).toContainText("1, Runa Kell");
});

test("a lot is decided on with a reason and said to lie somewhere", async ({ page }) => {
  await openLot(page, "BE-26-", "/flour");
  await page.getByRole("button", { name: "Reject" }).click();
  await expect(page.getByText("why is it changed?")).toBeVisible();
  await page.getByLabel("Reason").fill("smells of cellar");
  await page.getByRole("button", { name: "Reject" }).click();
  await expect(page.getByText("rejected: smells of cellar")).toBeVisible();
  await page.getByLabel("Silo or bay").fill("bay 4");
  await page.getByLabel("Tonnes left").fill("0,4");
  await page.getByRole("button", { name: "Keep" }).click();
  await expect(page.getByText("400 kg in bay 4")).toBeVisible();
});

test("a flour is mended, and told where a remedy ends", async ({ page }) => {
  await openLot(page, "BS-0430", "/flour/correction");
  await expect(page.getByText(/vital gluten on flour brings protein/)).toBeVisible();
  const sieve = page.locator("section", { hasText: "Sieve for an ash" });
  await sieve.getByLabel("Ash wanted on dry matter").fill("0.85");
  await sieve.getByLabel("Ash wanted on dry matter").press("Enter");
  await expect(sieve.getByText("about the first pass of 30 mesh")).toBeVisible();
  await sieve.getByLabel("Ash wanted on dry matter").fill("2");
  await sieve.getByLabel("Ash wanted on dry matter").press("Enter");
  await expect(sieve.getByText("sieving only lowers ash")).toBeVisible();
});

test("a certificate of fourteen values is typed by keyboard alone", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("link", { name: "VR-26-1090" })).toBeVisible();
  await page.keyboard.press("n");
  await page.getByLabel("Flour", { exact: true }).focus();
  await page.keyboard.type("Tarn Strong");
  await page.getByLabel("Lot", { exact: true }).focus();
  await page.keyboard.type("VR-KEYS-1");
  await page
    .getByRole("button", { name: "A row for each property of the specification" })
    .press("Enter");
  await page.getByLabel("value, row 1", { exact: true }).focus();
  const values = ["14,1", "13,0", "0,61", "31,4", "342", "8,4", "62,3", "11,5", "298"];
  for (const value of values) {
    await page.keyboard.type(value);
    await page.keyboard.press("Enter");
  }
  await expect(page.getByLabel("value, row 9", { exact: true })).toHaveValue("298");
  for (const [at, [property, value, unit]] of [
    ["development", "6,2", "min"],
    ["softening", "48", "FU"],
    ["P", "84", "mmH2O"],
    ["L", "101", "mm"],
    ["Ie", "52", "%"],
  ].entries()) {
    await page.getByRole("button", { name: "Add a row" }).press("Enter");
    await page.getByLabel(`property, row ${at + 10}`, { exact: true }).focus();
    for (const text of [property, value, unit]) {
      await page.keyboard.type(text ?? "");
      await page.keyboard.press("Tab");
    }
  }
  await expect(page.getByRole("button", { name: "Save lot" })).toBeEnabled();
  await page.getByRole("button", { name: "Save lot" }).press("Enter");
  await expect(page.getByRole("heading", { name: "VR-KEYS-1" })).toBeVisible();
  await expect(page.getByRole("cell", { name: "298", exact: true })).toBeVisible();
  await expect(link(page, "Flour")).toContainText("VR-KEYS-1");
});

test("a flour nobody wrote a note on is its name and its mill", async ({ page }) => {
  await page.route("**/api/v1/lots/*", async (route) => {
    const answer = await route.fetch();
    const lot = await answer.json();
    await route.fulfill({ response: answer, json: { ...lot, flour: { ...lot.flour, note: "" } } });
  });
  await page.route("**/opening", (route) => route.abort());
  await page.goto("/flour?product=deck-roll-60");
  await expect(page.getByText("Tarn Strong · Vennick Roller Mill")).toBeVisible();
});

/** A page with each line at its height, as a mill's program writes a PDF. */
function pdf(lines: string[]): Buffer {
  const written = lines
    .map(
      (line, at) =>
        `BT /F1 10 Tf 50 ${700 - 20 * at} Td (${line.replace(/[()\\]/g, "\\$&")}) Tj ET`,
    )
    .join("\n");
  const objects = [
    "<< /Type /Catalog /Pages 2 0 R >>",
    "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
    "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
    `<< /Length ${written.length} >>\nstream\n${written}\nendstream`,
    "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>",
  ];
  let text = "%PDF-1.4\n";
  const places = objects.map((object, at) => {
    const place = text.length;
    text += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return `${String(place).padStart(10, "0")} 00000 n \n`;
  });
  const table = text.length;
  text += `xref\n0 6\n0000000000 65535 f \n${places.join("")}`;
  text += `trailer\n<< /Size 6 /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`;
  return Buffer.from(text, "latin1");
}

test("a certificate in a PDF is seen line by line before it is saved", async ({ page }) => {
  await page.goto("/flour/receive");
  const take = (name: string, buffer: Buffer) =>
    page
      .locator("input[type=file]")
      .first()
      .setInputFiles({ name, mimeType: "application/pdf", buffer });
  await take("scan.pdf", pdf([]));
  await expect(page.getByText("holds no text, only a picture of a page")).toBeVisible();
  await take("torn.pdf", Buffer.from("%PDF-1.4 torn"));
  await expect(page.getByText("this PDF is damaged")).toBeVisible();
  await take(
    "certificate.pdf",
    pdf([
      "Vennick Roller Mill, certificate of analysis",
      "Product: Tarn Strong",
      "Lot: VR-PDF-1",
      `Milled: ${daysAgo(48)}`,
      `Delivered: ${daysAgo(47)}`,
      "Moisture 14,1 % ISO 712",
      "Protein (N x 5.7) 13,0 % 14 % ISO 16634-2",
      "Ash d.m. 0,61 % ISO 2171",
      "Falling number 342 s",
    ]),
  );
  await expect(page.getByLabel("Lot", { exact: true })).toHaveValue("VR-PDF-1");
  await expect(
    page.getByText("read from “Protein (N x 5.7) 13,0 % 14 % ISO 16634-2”"),
  ).toBeVisible();
  await expect(page.getByLabel("basis, row 2")).toHaveValue("14 %");
  await expect(page.getByLabel("method, row 3")).toHaveValue("ISO 2171");
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByRole("heading", { name: "VR-PDF-1" })).toBeVisible();
});

test("a held lot is reported to its mill on one page", async ({ page }) => {
  await openLot(page, "VR-26-1033", "/flour");
  await page.getByRole("link", { name: "Report to the mill" }).click();
  await expect(
    page.getByRole("heading", { name: "Report to the mill: lot VR-26-1033" }),
  ).toBeVisible();
  await expect(page.getByRole("row", { name: /^damaged starch/ })).toContainText("above");
  const saved = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save as CSV" }).click();
  expect((await saved).suggestedFilename()).toBe("vr-26-1033-report-to-the-mill.csv");
  expect(pages(await page.pdf({ format: "A4" }))).toBe(1);
});
