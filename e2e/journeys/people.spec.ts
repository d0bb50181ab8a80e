import { everybodyCanUse, expect, link, test } from "./plant";
import { stateOf } from "../signIn";

const nobody = { cookies: [], origins: [] };

test.describe("nobody is signed in", () => {
  test.use({ storageState: nobody });

  test("a newcomer is in with one press, where they wanted to go, and out again", async ({
    page,
  }) => {
    await page.goto("/water?product=deck-roll-60");
    await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
    await expect(page.getByText("dough absorption")).toHaveCount(0);
    await page.getByRole("button", { name: /^Runa Kell/ }).click();
    await expect(link(page, "Water")).toContainText("%");
    await expect(page).toHaveURL(/\/water\?product=deck-roll-60/);
    await page.getByRole("button", { name: "Account of Runa Kell" }).click();
    await page.getByRole("button", { name: "Sign out", exact: true }).click();
    await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
    await page.reload();
    await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  });

  test("the way in can be used by everybody", async ({ page }) => {
    await page.goto("/");
    await expect(page.getByRole("button", { name: /^Hale Tiden/ })).toBeVisible();
    await everybodyCanUse(page);
  });

  test("a wrong password is told in words, and the right one by keyboard alone goes in", async ({
    page,
  }) => {
    await page.goto("/");
    await page.getByLabel("E-mail address").fill("visitor@skerrow.example");
    await page.getByLabel("Password").fill("a wrong password");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("alert")).toContainText("do not go together");
    await page.getByLabel("Password").fill("skerrow-demo");
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: "Account of Ines Brack" })).toBeVisible();
  });
});

test.describe("a visitor", () => {
  test.use({ storageState: stateOf("visitor") });

  test("reads everything, is told what is not theirs, and is refused it in words", async ({
    page,
  }) => {
    await page.goto("/dough?product=causeway-stick");
    await expect(link(page, "Dough")).toContainText("kg");
    await page.goto("/plant/lines");
    await expect(page.getByRole("link", { name: "Audit trail" })).toHaveCount(0);
    await page.goto("/floor?product=causeway-stick");
    await expect(page.getByText("Not you: this is a technologist's to do.")).toBeVisible();
    await page.getByRole("button", { name: "Plan this batch" }).click();
    await expect(page.getByText("this is a technologist's to do; nothing was done")).toBeVisible();
  });
});

test.describe("an administrator", () => {
  test.use({ storageState: stateOf("admin") });

  // What they do takes a password given within a quarter of an hour; the journeys may last longer.
  test.beforeEach(async ({ page, baseURL }) => {
    const confirmed = await page.request.post("/api/v1/session/confirmation", {
      data: { current: "skerrow-demo" },
      headers: { origin: baseURL ?? "" },
    });
    expect(confirmed.status()).toBe(204);
  });

  test("has pages that can be used by everybody", async ({ page }) => {
    await page.goto("/plant/keys");
    await expect(page.getByRole("button", { name: "Make a key" })).toBeVisible();
    await everybodyCanUse(page);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto("/plant/people");
    await page.getByRole("button", { name: "Change" }).first().click();
    await everybodyCanUse(page);
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.getByRole("button", { name: "Account of Hale Tiden" }).click();
    await expect(page.getByRole("button", { name: "Sign out everywhere" }).first()).toBeVisible();
    await everybodyCanUse(page);
  });

  test("makes an account, gives it a password, and closes it", async ({ page, browser }) => {
    await page.goto("/plant/people");
    await page.getByRole("button", { name: "Add a person" }).click();
    const person = page.getByRole("form", { name: "Person" });
    await person.getByRole("button", { name: "Save person" }).click();
    await expect(person.getByText("one role at least")).toBeVisible();
    await person.getByLabel("Name").fill("Lin Osk");
    await person.getByLabel("Initials").fill("LO");
    await person.getByLabel("E-mail address").fill("lin@skerrow.example");
    await person.getByLabel(/^floor/).check();
    await page.reload();
    await expect(person.getByLabel("Initials")).toHaveValue("LO");
    await person.getByRole("button", { name: "Save person" }).click();
    await expect(person.getByText("Saved.")).toBeVisible();
    const password = page.getByRole("form", { name: "Password" });
    await password.getByLabel("Password").fill("bread and butter");
    await password.getByRole("button", { name: "Set password" }).click();
    await expect(password.getByText("they sign in anew")).toBeVisible();

    const theirs = await browser.newContext({ storageState: nobody });
    const there = await theirs.newPage();
    await there.goto("/");
    await there.getByLabel("E-mail address").fill("Lin@Skerrow.example");
    await there.getByLabel("Password").fill("bread and butter");
    await there.getByRole("button", { name: "Sign in" }).click();
    await expect(there.getByRole("button", { name: "Account of Lin Osk" })).toBeVisible();

    await page
      .getByRole("row", { name: /^Lin Osk/ })
      .getByRole("button", { name: "Change" })
      .click();
    await person.getByLabel("The account is open").uncheck();
    await person.getByRole("button", { name: "Save person" }).click();
    await expect(page.getByRole("row", { name: /^Lin Osk/ })).toContainText("closed");
    await there.goto("/plant/flours");
    await expect(there.getByRole("heading", { name: "Sign in" })).toBeVisible();
    await theirs.close();
  });

  test("is asked for the password again, and goes on with what was begun", async ({ page }) => {
    await page.goto("/plant/keys");
    // As if it had been given long ago.
    let refused = false;
    await page.route("**/api/v1/keys/*", async (route) => {
      if (refused) return route.continue();
      refused = true;
      const errors = [{ field: "current", message: "give your password again" }];
      await route.fulfill({
        status: 403,
        json: { status: 403, title: "Your password again", detail: "again", errors },
      });
    });
    await page.getByLabel("What comes with it").fill("logger of the proofer");
    await page.getByRole("button", { name: "Make a key" }).click();
    const again = page.getByRole("dialog", { name: "Your password again" });
    await again.getByRole("textbox", { name: "Password" }).fill("something else");
    await again.getByRole("button", { name: "Go on" }).click();
    await expect(again.getByText("this is not the password so far")).toBeVisible();
    await again.getByRole("textbox", { name: "Password" }).fill("skerrow-demo");
    await again.getByRole("button", { name: "Go on" }).click();
    await expect(again).toBeHidden();
    await expect(page.getByRole("row", { name: /^logger of the proofer/ })).toBeVisible();
  });

  test("makes a key that is shown once, and finds it in the trail", async ({ page }) => {
    await page.goto("/plant/keys");
    await page.getByLabel("What comes with it").fill("jar camera of the bench");
    await page.getByRole("button", { name: "Make a key" }).click();
    const secret = page.locator("code", { hasText: /^[0-9a-f]{64}$/ });
    await expect(secret).toBeVisible();
    const key = await secret.innerText();
    const asked = await page.request.get("/api/v1/lots", {
      headers: { authorization: `Bearer ${key}`, cookie: "" },
    });
    expect(asked.status()).toBe(200);
    await page.reload();
    const row = page.getByRole("row", { name: /^jar camera/ });
    await expect(row).toBeVisible();
    await expect(secret).toHaveCount(0);
    await row.getByRole("button", { name: "Revoke", exact: true }).click();
    await expect(row.getByRole("button", { name: "Revoke", exact: true })).toHaveCount(0);
    await page.getByRole("link", { name: "Audit trail" }).click();
    await page.getByLabel(/Search/).fill("key");
    await expect(page.getByRole("row", { name: /Hale Tiden.*key revoked/ }).first()).toBeVisible();
    await page.getByLabel(/Search/).fill("");
    await page.getByRole("button", { name: "Hale Tiden", exact: true }).first().click();
    await expect(page).toHaveURL(/person=/);
    await expect(page.getByRole("row", { name: /Runa Kell/ })).toHaveCount(0);
    await page.getByRole("button", { name: /everybody/ }).click();
    await expect(page.getByRole("row", { name: /Runa Kell/ }).first()).toBeVisible();
  });
});

test("a session that ended keeps what was queued until its author is back", async ({
  page,
  context,
}) => {
  await page.goto("/dough/trials?product=holm-tin");
  await page.getByRole("checkbox", { name: /^Try / }).first().check();
  await expect(page.getByRole("button", { name: "Save trial" })).toBeEnabled();
  await context.clearCookies();
  await page.getByRole("button", { name: "Save trial" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
  await page.getByRole("button", { name: /^Runa Kell/ }).click();
  await expect(page.getByRole("button", { name: "Account of Runa Kell" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Trial of Holm Tin" })).toBeVisible();
  await expect(page.getByText("Set up by Runa Kell")).toBeVisible();
  await expect(page.getByText("Not yet recorded")).toHaveCount(0);
});

test.describe("an answer of an earlier session", () => {
  test.use({ storageState: stateOf("technologist") });

  test("signs nobody out who is known to the server", async ({ page }) => {
    await page.goto("/plant/lines?product=ferry-tin-800");
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    // As if it had been asked before this browser's session was another.
    let answered = false;
    await page.route("**/api/v1/stations", async (route) => {
      if (answered) return route.continue();
      answered = true;
      const problem = { title: "Not signed in", status: 401, detail: "sign in first" };
      return route.fulfill({ status: 401, json: problem });
    });
    await page.goto("/plant/stations");
    await expect(page.getByRole("heading", { name: "Stations", exact: true })).toBeVisible();
    await expect.poll(() => answered).toBe(true);
    await expect(page.getByRole("heading", { name: "Sign in" })).toHaveCount(0);
    await expect(page.getByRole("button", { name: /^Account of/ })).toBeVisible();
  });
});
