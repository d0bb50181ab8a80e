import { certificate, drop, expect, GOOD, link, test } from "./plant";

test("another lot moves the chain, says why, and undo takes it back", async ({ page }) => {
  await page.goto("/water?product=deck-roll-60");
  await page.getByLabel("Selected lot").selectOption({ label: "VR-26-1090 ● in" });
  await expect(link(page, "Water")).toContainText("58.5 %");
  await page.getByLabel("Selected lot").selectOption({ label: "VR-26-1033 ✕ out, held" });
  await expect(link(page, "Water")).toContainText("62.6 %");
  await expect(link(page, "Water")).toContainText("+4.09");
  await expect(page.getByText("damaged starch is 10.9 %")).toBeVisible();

  const moved = page.getByRole("complementary", { name: "Changes" });
  await moved.getByText("dough absorption").first().click();
  await expect(moved.getByRole("listitem").first()).toContainText(
    "+3.40 points farinograph absorption on 14 %",
  );
  await page.keyboard.press("Control+z");
  await expect(link(page, "Water")).toContainText("58.5 %");
  await expect(page.getByLabel("Selected lot")).toHaveValue(/.+/);
});

test("water set by hand is kept in the address and can be put back", async ({ page }) => {
  await page.goto("/water?product=deck-roll-60");
  const byHand = page.getByLabel(/^Override/);
  await byHand.fill("64");
  await byHand.press("Enter");
  await expect(link(page, "Water")).toContainText("64.0 %");
  await expect(page).toHaveURL(/water=64/);
  await expect(page.getByRole("cell", { name: "override", exact: true })).toBeVisible();
  await page.reload();
  await expect(link(page, "Water")).toContainText("64.0 %");
  await page.getByRole("button", { name: "Reset to computed" }).click();
  await expect(page.getByRole("cell", { name: "override", exact: true })).toBeHidden();
});

test("what a lot does not state is taken as usual, marked, and the water may be set by hand", async ({
  page,
}) => {
  await page.goto("/");
  await drop(page, certificate("VR-E2E-BARE", GOOD.slice(0, 1)));
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByRole("heading", { name: "VR-E2E-BARE" })).toBeVisible();
  const lot = new URL(page.url()).searchParams.get("lot");
  await page.goto(`/water?product=deck-roll-60&lot=${lot}`);
  await expect(page.getByText(/taken as usual \(H\): protein 12 %/)).toBeVisible();
  await page.getByLabel(/^Override/).fill("60");
  await page.keyboard.press("Enter");
  await expect(link(page, "Water")).toContainText("60.0 %");
});

test("a lost connection is said, kept, and sent again without doubling", async ({
  page,
  context,
}) => {
  await page.goto("/");
  await drop(page, certificate("VR-E2E-LOST", GOOD));
  await expect(page.getByRole("button", { name: "Save lot" })).toBeEnabled();

  // The server records it, and its answer is lost on the way.
  let lost = true;
  await page.route("**/api/v1/lots/*/revisions/*", async (route) => {
    if (!lost) return route.continue();
    await route.fetch();
    await route.abort();
  });
  await page.getByRole("button", { name: "Save lot" }).click();
  await expect(page.getByText("Not yet recorded:")).toBeVisible();
  await context.setOffline(true);
  lost = false;
  await expect(page.getByText("lot VR-E2E-LOST. Kept here")).toBeVisible();

  await context.setOffline(false);
  await expect(page.getByRole("heading", { name: "VR-E2E-LOST" })).toBeVisible();
  await expect(page.getByText("Not yet recorded:")).toBeHidden();
  await page.goto("/");
  await expect(page.getByRole("link", { name: "VR-E2E-LOST" })).toHaveCount(1);
});

test("keys, finder, units and the night shift", async ({ page }) => {
  await page.goto("/dough?product=deck-roll-60");
  await expect(link(page, "Method")).toContainText("°C");
  await page.keyboard.press("4");
  await expect(page.getByRole("heading", { name: "Dough temperature", exact: true })).toBeVisible();
  await page.keyboard.press("?");
  await expect(page.getByRole("heading", { name: "Shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");

  await page.keyboard.press(",");
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("radio", { name: "°F" }).click();
  await dialog.getByRole("radio", { name: "lb, oz" }).click();
  await dialog.getByRole("radio", { name: "comma" }).click();
  await dialog.getByRole("radio", { name: "night" }).click();
  await page.keyboard.press("Escape");
  await expect(link(page, "Method")).toContainText("dough 80,6 °F");
  await expect(link(page, "Dough")).toContainText("352,74 lb");
  await expect(page.locator("html")).toHaveAttribute("data-theme", "night");
  await page.getByLabel("Tap water").fill("50");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/tap=10(&|$)/);
  await page.getByLabel("Tap water").blur();

  await page.keyboard.press("/");
  await page.getByLabel("Find a lot, a product, an action").fill("vr-26-1063");
  await dialog.getByRole("option", { name: /VR-26-1063/ }).click();
  await expect(page.getByRole("heading", { name: "VR-26-1063" })).toBeVisible();
  await expect(link(page, "Flour")).toContainText("VR-26-1063");
});

test("figures answer why", async ({ page }) => {
  await page.goto("/method?product=ferry-tin-short");
  await page.getByRole("button", { name: "Why: water temperature" }).click();
  await expect(page.getByText("melting of ice")).toBeVisible();
  await expect(page.getByText("ice must melt before the dough develops")).toBeVisible();
  await page.keyboard.press("Escape");
  await link(page, "Dough").click();
  await page.getByRole("button", { name: "Why: one batch" }).click();
  await expect(page.getByRole("cell", { name: /^scaling loss/ })).toBeVisible();
});

test("a flour whose every lot is barred chooses none by itself, and says so", async ({ page }) => {
  await page.route("**/api/v1/lots?flour_id=*", async (route) => {
    const answer = await route.fetch();
    const { lots, ...rest } = await answer.json();
    const barred = lots.map((lot: object) => ({ ...lot, status: { barred: "it is held" } }));
    await route.fulfill({ response: answer, json: { ...rest, lots: barred, usual: null } });
  });
  await page.route("**/opening", (route) => route.abort());
  await page.goto("/water?product=deck-roll-60");
  await expect(page.getByRole("heading", { name: "No released lot" })).toBeVisible();
  expect(new URL(page.url()).searchParams.get("lot")).toBeNull();
  await page.getByRole("link", { name: /^Look at it with / }).click();
  await expect(page.getByText("dough absorption").first()).toBeVisible();
});

test("a flour that comes in with every lot barred asks for one, and claims no figure", async ({
  page,
}) => {
  await page.route("**/api/v1/lots?flour_id=*", async (route) => {
    const answer = await route.fetch();
    const { lots, ...rest } = await answer.json();
    const barred = lots.map((lot: { flour: string }) =>
      lot.flour === "Tarn Plain" ? { ...lot, status: { barred: "it is held" } } : lot,
    );
    const usual = lots[0]?.flour === "Tarn Plain" ? null : rest.usual;
    await route.fulfill({ response: answer, json: { ...rest, lots: barred, usual } });
  });
  await page.goto("/dough?product=deck-roll-60");
  const water = page.getByRole("row", { name: /^water/ });
  await expect(water).toContainText("%");
  await page.getByLabel("Add a flour").selectOption("Tarn Plain");
  const lots = page.getByLabel("Lot of Tarn Plain");
  await expect(lots.getByRole("option", { selected: true })).toHaveText(
    "none may be planned: choose",
  );
  await expect(water).toContainText("–");
  await expect(page.getByText("The last edit is not computed.")).toBeVisible();
  await lots.selectOption({ index: 1 });
  await expect(water).toContainText("%");
});

test("a share no flour can have is refused in words beside the formula, until one it can have", async ({
  page,
}) => {
  await page.goto("/dough?product=deck-roll-60");
  await page.getByLabel("Add a flour").selectOption("Tarn Plain");
  const share = page
    .getByRole("row", { name: /^Tarn Plain/ })
    .getByRole("textbox")
    .first();
  await share.fill("150");
  await share.press("Enter");
  const formula = page.getByRole("region", { name: "Formula" });
  await expect(formula.getByRole("alert")).toContainText("share of the flour");
  await share.fill("20");
  await share.press("Enter");
  await expect(formula.getByRole("alert")).toHaveCount(0);
});

test("what could not be fetched is said, and asked again once the server answers", async ({
  page,
}) => {
  test.slow();
  await page.route(/\/api\/v1\/lots$|\/readyz$/, (route) => route.abort());
  await page.goto("/");
  const said = page.getByRole("status").filter({ hasText: "The server does not answer" });
  await expect(said).toContainText("asked again by itself");
  await page.unrouteAll();
  await expect(said).toHaveCount(0);
  await expect(page.getByText("VR-26-1090").first()).toBeVisible();
});

test("no sheet stands under another lot's name while the answer is under way", async ({ page }) => {
  await page.goto("/floor?product=deck-roll-60");
  const sheet = page.getByRole("article");
  await expect(sheet).toBeVisible();
  let answer = () => {};
  const held = new Promise<void>((resolve) => (answer = resolve));
  await page.route("**/api/v1/chain", async (route) => {
    await held;
    await route.continue();
  });
  const lots = page.getByLabel("Selected lot");
  const other = await lots.locator("option", { hasText: "VR-26-1090" }).getAttribute("value");
  await lots.selectOption(other);
  await expect(sheet).toHaveCount(0);
  answer();
  await expect(sheet).toContainText("VR-26-1090");
});

test("another flour's lot that was chosen stays, however old", async ({ page }) => {
  const of = async (path: string) => (await page.request.get(path)).json();
  const flours: { id: string; name: string }[] = await of("/api/v1/flours");
  const emmer = flours.find((flour) => flour.name === "Brae Emmer")!.id;
  const { lots }: { lots: { id: string; code: string }[] } = await of(
    `/api/v1/lots?flour_id=${emmer}`,
  );
  const [oldest, newest] = [lots.at(-1)!, lots[0]!];
  expect(oldest.id).not.toBe(newest.id);
  await page.route(`**/api/v1/lots?flour_id=${emmer}`, async (route) => {
    const response = await route.fetch();
    const json = await response.json();
    json.lots = json.lots.filter((lot: { id: string }) => lot.id !== oldest.id);
    await route.fulfill({ response, json });
  });
  await page.goto(`/dough?product=rigg-spelt-500&with=${oldest.id}`);
  const chosen = page.getByLabel("Lot of Brae Emmer");
  await expect(chosen).toHaveValue(oldest.id);
  await chosen.selectOption(newest.id);
  await expect(chosen).toHaveValue(newest.id);
  await expect(page).toHaveURL(new RegExp(`with=${newest.id}(&|$)`));
});

test("a flour from a bag goes into the chain from where its lot is chosen", async ({ page }) => {
  await page.goto("/water?product=deck-roll-60");
  await page.getByLabel("Selected lot").selectOption({ label: "a flour from a bag …" });
  const name = `Corner bag ${Date.now()}`;
  await page.getByLabel("Name").first().fill(name);
  await page
    .getByLabel(/^Protein/)
    .first()
    .fill("11.5");
  await page.getByRole("button", { name: "Save flour" }).click();
  await expect(link(page, "Flour")).toContainText(name);
  await expect(link(page, "Water")).toContainText("%");
  await expect(link(page, "Floor")).toContainText("Mixing sheet");
});
