import { expect, link, test } from "./plant";

/** An hour of a day to come, as a field for a date and a time takes it. */
function inDays(days: number, clock: string): string {
  const day = new Date(Date.now() + days * 86_400_000);
  const two = (number: number) => String(number).padStart(2, "0");
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}T${clock}`;
}

test("a dough is followed to the oven, and its yeast set for another rise", async ({ page }) => {
  await page.goto("/method/fermentation?product=deck-roll-60");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  await expect(page.getByText("where it meets the oven")).toBeVisible();
  await expect(page.getByRole("row", { name: /^Final proof/ })).toContainText("32 °C");
  const seasons = page.getByRole("table", { name: "Instant yeast by ambient temperature" });
  await expect(seasons.getByRole("row")).toHaveCount(11);

  const target = page.getByRole("region", { name: "Target rise" });
  const wanted = target.getByLabel("Rise", { exact: true });
  await wanted.fill("9000");
  await wanted.press("Enter");
  await expect(page.getByText("target rise must be from 1 to 1000 %")).toBeVisible();
  await wanted.fill("900");
  await wanted.press("Enter");
  await expect(page.getByText(/the film of this dough gives way/)).toBeVisible();
  await wanted.fill("150");
  await wanted.press("Enter");
  const eight = target.getByLabel("After the first mixing");
  await eight.fill("8 h");
  await eight.press("Enter");
  await expect(target.getByText("time after the first mixing")).toBeVisible();
  const dose = () => target.getByText("yeast, as instant").locator("..").innerText();
  const slow = parseFloat((await dose()).replace(/^\D+/, ""));
  await eight.fill("");
  await eight.press("Enter");
  await expect(async () =>
    expect(parseFloat((await dose()).replace(/^\D+/, ""))).toBeGreaterThan(slow),
  ).toPass();
  await page.getByRole("button", { name: "Use in the formula" }).click();
  await expect(page.getByText("+150 %").first()).toBeVisible();
  await link(page, "Dough").click();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
});

test("a date that is cleared is asked for where it was, and the rest stands", async ({ page }) => {
  for (const path of ["/method/production-run", "/method/schedule"]) {
    await page.goto(`${path}?product=ferry-tin-800`);
    await expect(link(page, "Floor")).toContainText("Mixing sheet");
    const when = page.getByLabel("When", { exact: true });
    await when.fill("");
    await expect(page.getByText("say a date and a time of day")).toBeVisible();
    await expect(page.getByLabel("Plan by")).toBeVisible();
    await when.fill(inDays(3, "05:00"));
    await expect(page.getByText("say a date and a time of day")).toBeHidden();
    await expect(page.getByText("Computing")).toBeHidden();
  }
});

test("a sponge is seen before the dough, a sour tells by its jar", async ({ page }) => {
  await page.goto("/method/fermentation?product=ferry-tin-800");
  await expect(page.getByText("the sponge after 3 h 30, set at 24.0 °C")).toBeVisible();
  await page.goto("/method/fermentation?product=holm-tin");
  await expect(page.getByText("of the flour in the sour")).toBeVisible();
  const jar = page.getByRole("region", { name: "Sample jar times" });
  await expect(jar).toContainText("+50 %4 h");
  await expect(page.getByText("Yeast for another rise")).toBeHidden();
});

test("a dough is put on the clock around the night, and saved as a calendar", async ({ page }) => {
  await page.goto("/method/schedule?product=causeway-stick");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  await page.getByLabel("When", { exact: true }).fill(inDays(2, "05:00"));
  const stages = page.getByRole("table", { name: "The stages with their hours" });
  await expect(stages.getByRole("row", { name: /Bake/ })).toBeVisible();
  await expect(page.getByText(/^out of the oven, week \d+$/)).toBeVisible();
  await page.getByLabel("Plan by").selectOption("beginning not before");
  await expect(page.getByText("later than asked")).toBeHidden();
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a calendar" }).click();
  expect((await saved).suggestedFilename()).toBe("dough.ics");
  await page.reload();
  await expect(page.getByLabel("Plan by")).toHaveValue("from");
});

test("ten sponge doughs for five in the morning, one moved, and the line stopped for 90 minutes", async ({
  page,
}) => {
  await page.goto("/method/production-run?product=ferry-tin-800&mixer=10");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const when = page.getByLabel("When", { exact: true });
  await when.fill(inDays(2, "05:00"));
  const table = page.getByRole("table", { name: "When each dough begins each stage" });
  await expect(table.getByRole("row")).toHaveCount(11);
  await expect(page.getByText("all out of the oven")).toBeVisible();
  await expect(page.getByRole("heading", { name: /the bottleneck$/ })).toBeVisible();
  const last = table.getByRole("row").last().getByRole("cell").last();
  await expect(last).toHaveText("05:00");

  // A stage is moved by the keyboard, and what comes after gives way.
  const third = table.getByRole("button", { name: /^Dough 3, Pick-up/ });
  const was = await third.innerText();
  await third.focus();
  await third.press("Enter");
  for (let i = 0; i < 3; i++) await third.press("ArrowRight");
  await expect(third).not.toHaveText(was);
  await page.reload();
  await expect(third).not.toHaveText(was);
  await page.getByRole("button", { name: "As it was planned" }).click();
  await expect(third).toHaveText(was);

  await page.getByRole("button", { name: "Line stoppage" }).click();
  await page.getByLabel("Stopped from").fill(inDays(2, "01:20"));
  await expect(page.getByText(/later than it would be/)).toBeVisible();
  const late = page.getByRole("region", { name: /go beyond their limits/ });
  await expect(late.getByText(/beyond its limit/).first()).toBeVisible();
  await late.getByRole("button", { name: "What to do with dough 6" }).click();
  await expect(late.getByText("Spread it in thirds")).toBeVisible();
  await expect(late.getByText(/old sponge into each \d+\.\d+ kg/)).toBeVisible();
  await expect(late.getByText(/Bake it first/)).toBeVisible();
  await late.getByRole("button", { name: "Plan the rest without dough 6" }).first().click();
  await expect(page.getByText("Planned without dough 6.")).toBeVisible();
  await expect(table.getByRole("row")).toHaveCount(10);

  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a calendar" }).click();
  expect((await saved).suggestedFilename()).toBe("dough.ics");
});

test("the same loaf stands beside its no-time dough", async ({ page }) => {
  await page.goto("/method/straight-or-sponge?product=ferry-tin-800");
  const table = page.getByRole("table", { name: "Straight and sponge compared" });
  await expect(table.getByRole("columnheader", { name: "no-time straight dough" })).toBeVisible();
  const row = (name: string) => table.getByRole("row", { name: new RegExp(`^${name}`) });
  await expect(row("Process time to out of the oven")).toContainText("5 h");
  await expect(row("Troughs in use")).toContainText("m²");
  await expect(row("Flavour")).toContainText("hours of fermentation");
  await expect(page.getByText(/W at least 260/)).toBeVisible();
  await page.getByRole("button", { name: "Use its stages" }).click();
  await link(page, "Method").click();
  await page.getByRole("link", { name: "Stages", exact: true }).click();
  await expect(page.getByLabel("Process")).toHaveValue("no_time");
  await page.getByRole("button", { name: "Discard" }).click();
  await expect(page.getByLabel("Process")).toHaveValue("sponge_dough");
});

test("a July dough that ice cannot save says what can, and is saved by it", async ({ page }) => {
  await page.goto("/method?product=ferry-tin-800&flour=33&room=34&tap=24");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const alert = page.getByRole("alert");
  await expect(alert).toContainText("The target cannot be reached");
  await expect(alert).toContainText("minutes less mixing");
  await expect(alert).toContainText("jacket on");
  await page.getByRole("checkbox", { name: /jacket runs/ }).click();
  await page.getByLabel("Flour temperature").fill("20");
  await page.getByLabel("Flour temperature").press("Enter");
  await expect(alert).toBeHidden();
  await expect(page).toHaveURL(/jacket=on/);
});

test("a sponge is solved from its numbers, and ripe sooner by mixing", async ({ page }) => {
  await page.goto("/method/sponge?product=ferry-tin-800");
  await expect(page.getByRole("heading", { name: "The dough stage" })).toBeVisible();
  const room = page.getByLabel("Room", { exact: true });
  await room.fill("31");
  await room.press("Enter");
  await expect(page.getByText(/Mix the sponge longer/)).toBeVisible();
  await expect(page.getByText(/follows the room by hours/)).toBeVisible();
  await page.getByRole("button", { name: /into it$/ }).click();
  await link(page, "Dough").click();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
});

test("stages are changed, recorded with a reason, and taken up again", async ({ page }) => {
  await page.goto("/method/stages?product=rigg-spelt-500");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  await page.getByRole("button", { name: "Change Bulk" }).click();
  const minutes = page.getByLabel("Lasts");
  await minutes.fill("185");
  await minutes.press("Enter");
  await page.reload();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  await page.getByLabel("Why", { exact: true }).fill("warm weeks");
  await page.getByRole("button", { name: "Save revision 2" }).click();
  const revisions = page.getByRole("region", { name: "Revisions" });
  await expect(revisions).toContainText("Runa Kell: warm weeks");
  await revisions.getByRole("button", { name: "Restore" }).click();
  await expect(page.getByText("Edited, not saved")).toBeVisible();
  await page.getByRole("button", { name: "Discard" }).click();
  // What is edited while an old revision is on its way stays edited.
  let answer = () => {};
  const held = new Promise<void>((resolve) => (answer = resolve));
  await page.route("**/api/v1/method-revisions/*", async (route) => {
    await held;
    await route.continue();
  });
  await revisions.getByRole("button", { name: "Restore" }).click();
  await page.getByRole("checkbox", { name: "Autolyse" }).click();
  const folds = page.getByText("One more set of folds", { exact: true }).first();
  await expect(folds).toBeVisible();
  const late = page.waitForResponse("**/api/v1/method-revisions/*");
  answer();
  await (await late).finished();
  await expect(page.getByLabel("Changes")).toContainText("process time −13 min");
  await expect(folds).toBeVisible();
});

test("a stage ends at a pH or a height, and what cannot be is said where it was typed", async ({
  page,
}) => {
  await page.goto("/method/stages?product=holm-tin");
  await page.getByRole("button", { name: "Change Three sets of folds" }).click();
  const stage = page.getByRole("listitem").filter({ hasText: "Three sets of folds" }).first();
  const typed = async (label: string, value: string) => {
    await stage.getByLabel(label).fill(value);
    await stage.getByLabel(label).press("Enter");
  };
  await stage.getByLabel("End point").selectOption("ph");
  await typed("Ends at a pH of", "4.3");
  await expect(stage).toContainText("Predicted after");
  await stage.getByLabel("End point").selectOption("height");
  await typed("Ends at a height, mm", "95");
  await expect(stage.getByText("Predicted after")).toHaveCount(0);
  await typed("Height at first, mm", "50");
  await expect(stage).toContainText("Predicted after");
  await typed("Height at first, mm", "120");
  await expect(stage).toContainText("it stands at 120 mm at first, above the 95 mm it ends at");
  await typed("Height at first, mm", "60");
  await expect(stage).toContainText("Predicted after");
});

test("a whole-grain sour tin fits around work and sleep, its starter fed in time", async ({
  page,
}) => {
  await page.goto("/method/schedule?product=holm-tin");
  await page.getByLabel("When", { exact: true }).fill(inDays(3, "22:00"));
  await page.getByLabel("Closed hours, from, 1").fill("22:30");
  await page.getByLabel("Closed hours, to, 1").fill("6:30");
  await page.getByRole("button", { name: "More hours" }).click();
  await page.getByLabel("Closed hours, from, 2").fill("8:00");
  await page.getByLabel("Closed hours, to, 2").fill("17:00");
  await expect(page.getByText(/in the cold halfway through the bulk/)).toBeVisible();
  const stages = page.getByRole("table", { name: "The stages with their hours" });
  await expect(stages.getByRole("row", { name: /In the cold.*put in/ })).toBeVisible();
  await expect(page.getByRole("heading", { name: /^Refresh the starter/ })).toBeVisible();
});

test("balls for Friday, with spare ones frozen for later", async ({ page }) => {
  await page.goto("/method/schedule?product=ebb-flats-240");
  await page.getByLabel("When", { exact: true }).fill(inDays(3, "19:00"));
  await page.getByRole("button", { name: "Freeze surplus pieces" }).click();
  await page.getByLabel("To be used").fill(inDays(2, "19:00"));
  await expect(page.getByText(/cannot be frozen and thawed again/)).toBeVisible();
  await page.getByLabel("To be used").fill(inDays(9, "19:00"));
  await expect(page.getByRole("heading", { name: "4 surplus pieces" })).toBeVisible();
  await expect(page.getByText(/Into the freezer/)).toBeVisible();
  const stages = page.getByRole("table", { name: "The stages with their hours" });
  await expect(stages.getByRole("row", { name: /In boxes in the cold/ })).toContainText("h");
});

test("a line's mixer is revised, and measured doughs stand beside its power", async ({ page }) => {
  await page.goto("/method/line?product=causeway-stick");
  await expect(page.getByText(/measured doughs give/)).toBeVisible();
  await page.getByLabel("Its kind").selectOption("fork");
  await expect(page.getByText("usual of a fork one 0.3 to 0.8")).toBeVisible();
  const turn = page.getByLabel("Batch interval, min");
  await turn.fill("200");
  await turn.press("Enter");
  await page.getByLabel("Why", { exact: true }).fill("the fork mixer is back");
  await page.getByRole("button", { name: /^Save revision/ }).click();
  await expect(page.getByText("batch interval must be from 0 to 120 min")).toBeVisible();
  await turn.fill("4");
  await turn.press("Enter");
  await page.getByRole("button", { name: /^Save revision/ }).click();
  await expect(page.getByText("Runa Kell: the fork mixer is back")).toBeVisible();
  await expect(page.getByText(/^Bench mixer, fork,/)).toBeVisible();
});

test("a starter is fed for an hour, and tonight's jar moves the estimate", async ({ page }) => {
  await page.goto("/method/starter?product=holm-tin");
  await page.getByLabel("Fed at").fill(inDays(2, "21:00"));
  await page.getByLabel("Ripe at").fill(inDays(3, "07:00"));
  await expect(page.getByText(/old starter, flour and water: 1 to 8\.1 to 8\.1/)).toBeVisible();
  await page.getByLabel("Ripe at").fill(inDays(2, "20:00"));
  await expect(page.getByText(/ripe in must be from 1 to 168 h/)).toBeVisible();

  await page.goto("/method/fermentation?product=holm-tin");
  const tonight = page.getByRole("region", { name: "Tonight's readings" });
  await tonight.getByLabel("After, min").fill("240");
  await tonight.getByLabel("After, min").press("Tab");
  await tonight.getByLabel("Risen").fill("18");
  await tonight.getByLabel("Risen").press("Enter");
  await tonight.getByRole("button", { name: "Add" }).click();
  await expect(tonight.getByText(/of the model's speed/)).toBeVisible();
  await expect(tonight.getByText(/likely .* to /).first()).toBeVisible();
});

test("a method that is edited and not recorded plans no batch", async ({ page }) => {
  await page.goto("/method/stages?product=deck-roll-60");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
  const target = page.getByLabel("Off the mixer");
  await target.fill("26");
  await target.press("Enter");
  await link(page, "Floor").click();
  await expect(page.getByText("Save the edited method first, under Stages.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Plan this batch" })).toBeDisabled();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Plan this batch" })).toBeEnabled();
});

test("a method begun again is called by its own process, and what leaves the cold leaves its days behind", async ({
  page,
}) => {
  await page.goto("/method/stages?product=ferry-tin-short");
  const families = page.getByLabel("Begin again from");
  const frozen = families.locator("option", { hasText: "Frozen dough" });
  await families.selectOption((await frozen.getAttribute("value")) ?? "");
  for (const tab of ["Dough temperature", "Fermentation", "Schedule", "Production run"]) {
    await page.getByRole("link", { name: tab, exact: true }).click();
    await expect(page.getByText(/^(Ferry Tin Short, )?frozen dough/)).toBeVisible();
  }

  await page.getByRole("link", { name: "Stages", exact: true }).click();
  const cold = families.locator("option", { hasText: "Ball dough" });
  await families.selectOption((await cold.first().getAttribute("value")) ?? "");
  const stage = page.getByRole("listitem").filter({ hasText: "In boxes in the cold" }).first();
  await stage.getByRole("button", { name: /^Change/ }).click();
  await expect(stage.getByLabel("At most")).not.toHaveValue("");
  const around = stage.getByLabel("Ambient");
  await around.fill("24");
  await around.press("Enter");
  await expect(stage.getByLabel("At most")).toHaveValue("");
});

test("tonight's readings move rise, schedule and yeast, and are kept for the starter", async ({
  page,
}) => {
  await page.goto("/method/fermentation?product=holm-tin");
  const headline = page.getByText(/^\+\d+ %$/).first();
  await expect(headline).toBeVisible();
  const asModel = await headline.innerText();
  const readings = page.getByRole("region", { name: "Tonight's readings" });
  for (const [minutes, risen] of [
    ["180", "60"],
    ["240", "95"],
  ] as const) {
    await readings.getByLabel("After, min").fill(minutes);
    await readings.getByLabel("Risen").fill(risen);
    await readings.getByLabel("Risen").press("Enter");
    await readings.getByRole("button", { name: "Add" }).click();
  }
  await readings.getByRole("button", { name: /^Go by it/ }).click();
  await expect(page).toHaveURL(/rate=\d\.\d+/);
  await expect(headline).not.toHaveText(asModel);
  const tonight = await headline.innerText();

  await readings.getByRole("button", { name: /^Keep it for/ }).click();
  await expect(page).not.toHaveURL(/rate=/);
  await expect(readings.getByText(/is kept at \d\.\d+ of the model's speed/)).toBeVisible();
  await expect(headline).toHaveText(tonight);
});

test("what a plan asks stands in the address, undone by key, and opens the same for a colleague", async ({
  page,
  browser,
}) => {
  await page.goto("/method/production-run?product=ferry-tin-800&mixer=6");
  await page.getByLabel("When", { exact: true }).fill(inDays(2, "06:00"));
  await page.getByRole("button", { name: "Line stoppage" }).click();
  await page.getByLabel("Stopped from").fill(inDays(2, "02:00"));
  const table = page.getByRole("table", { name: "When each dough begins each stage" });
  await expect(table.getByRole("row")).toHaveCount(7);
  const last = table.getByRole("row").last();
  await expect(page.getByText(/later than it would be/)).toBeVisible();

  const colleague = await browser.newPage();
  await colleague.goto(page.url());
  const theirs = colleague.getByRole("table", { name: "When each dough begins each stage" });
  // The plan follows its fields a moment later, here and there.
  const rows = () => Promise.all([last.innerText(), theirs.getByRole("row").last().innerText()]);
  await expect.poll(async () => new Set(await rows()).size).toBe(1);
  await expect(theirs.getByRole("row").last()).not.toHaveText(/06:00$/);
  await colleague.close();

  // From the control that was used last, the steps back one by one.
  const what = page.getByRole("combobox", { name: "Stopped" });
  await what.selectOption("the oven");
  await what.press("Control+z");
  await expect(what).toHaveValue("");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Line stoppage" })).toBeVisible();
});

test("a plan that is too soon offers the earliest that fits", async ({ page }) => {
  await page.goto("/method/schedule?product=causeway-stick");
  const when = page.getByLabel("When", { exact: true });
  await when.fill(inDays(2, "05:00"));
  const stages = page.getByRole("table", { name: "The stages with their hours" });
  await expect(stages).toBeVisible();
  // Nobody is there but for one hour, too little for any dough.
  await page.getByRole("button", { name: "Remove closed hours, 1" }).click();
  await when.fill("today 23:59");
  const soon = new Date(Date.now() + 100 * 60_000).toISOString().slice(0, 16);
  await when.fill(soon);
  const offer = page.getByRole("button", { name: /the earliest that fits$/ });
  await offer.click();
  await expect(offer).toBeHidden();
  await expect(stages).toBeVisible();
});

test("water goes in twice, the second time boiling, and the sheet says so at its step", async ({
  page,
}) => {
  await page.goto("/method/stages?product=ferry-tin-short");
  await page
    .getByRole("button", { name: /^Change/ })
    .nth(1)
    .click();
  await page.getByLabel("Something goes in here").selectOption("water");
  await page.getByLabel("Of it").last().fill("15");
  await page.getByLabel("Of it").last().press("Tab");
  await page.getByLabel("Goes in at", { exact: true }).last().fill("212 F");
  await page.getByLabel("Goes in at", { exact: true }).last().press("Tab");
  await expect(page.getByText(/15 % of the water at 100 °C in/)).toBeVisible();
  await expect(page.getByText("Hot water scalds").first()).toBeVisible();
  await page.getByLabel("Lasts").fill("1:30");
  await page.getByLabel("Lasts").press("Tab");
  await expect(page.getByLabel("Lasts")).toHaveValue("1 h 30");

  await page
    .getByRole("link", { name: /^Floor/ })
    .first()
    .click();
  const boiling = page.getByRole("listitem").filter({ hasText: /^boiling water, 100.0 °C/ });
  await expect(boiling).toHaveText(/kg$/);
  await page.goBack();
  await page
    .getByRole("button", { name: /^Change/ })
    .nth(1)
    .click();
  await page.getByLabel("Of it").last().fill("120");
  await page.getByLabel("Of it").last().press("Tab");
  await expect(page.getByText(/more than|up to 100|0.1 to 100/).first()).toBeVisible();
  await page
    .getByRole("button", { name: /^Take out/ })
    .last()
    .click();
  await expect(page.getByText(/of the water at 100 °C in/)).toHaveCount(0);
});
