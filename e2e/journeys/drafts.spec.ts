import { expect, test } from "./plant";
import type { Page } from "@playwright/test";

// What is typed outlives the page it was typed on, and a draft that cannot be read costs only itself.

interface Form {
  of: string;
  path: string;
  /** What shows the field, where it does not stand there at once. */
  open?: (page: Page) => Promise<void>;
  field: string;
  typed: string;
}

const press = (name: string | RegExp) => (page: Page) =>
  page
    .getByRole("button", { name, exact: typeof name === "string" })
    .first()
    .click();

const FORMS: Form[] = [
  { of: "a certificate", path: "/flour/receive", field: "Lot", typed: "VR-DRAFT-1" },
  {
    of: "a specification",
    path: "/flour/specification?product=causeway-stick",
    field: "moisture, max",
    typed: "13.9",
  },
  {
    of: "a flour",
    path: "/flour/specification?product=causeway-stick",
    open: async (page) => {
      const note = page.getByLabel("Note", { exact: true });
      const change = page.getByRole("button", { name: "change", exact: true });
      await expect(note.or(change)).toBeVisible();
      if (await change.isVisible()) await change.click();
    },
    field: "Note",
    typed: "asked the mill",
  },
  {
    of: "a formula",
    path: "/dough?product=causeway-stick",
    field: "salt, percent on flour",
    typed: "2.3 %",
  },
  {
    of: "a method",
    path: "/method/stages?product=ferry-tin-800",
    field: "Off the mixer",
    typed: "25.5 °C",
  },
  {
    of: "a line",
    path: "/method/line?product=causeway-stick",
    field: "Batch interval, min",
    typed: "9",
  },
  {
    of: "a rule",
    path: "/water/correction-factors",
    open: press(/^Change /),
    field: "Reason for the plant value",
    typed: "measured in May",
  },
  {
    of: "an ingredient",
    path: "/plant/ingredients",
    open: press(/^Change salt/),
    field: "Reason for the plant value",
    typed: "coarser here",
  },
  {
    of: "a product",
    path: "/dough/new",
    open: press(/^Sliced tin/),
    field: "Its name here",
    typed: "Gull Tin",
  },
];

for (const { of, path, open, field, typed } of FORMS) {
  test(`what is typed of ${of} outlives tabs and reloads, and what cannot be read costs only itself`, async ({
    page,
  }) => {
    const box = page.getByLabel(field, { exact: true });
    await page.goto(path);
    await open?.(page);
    const recorded = await box.inputValue();
    expect(recorded).not.toBe(typed);
    await box.fill(typed);
    await box.press("Tab");
    await page.keyboard.press("Escape");
    await page.getByRole("link", { name: "Ironpeel" }).click();
    await expect(page.getByRole("heading", { name: "Lots, newest first" })).toBeVisible();
    await page.reload();
    await page.goto(path);
    await open?.(page);
    await expect(box).toHaveValue(typed);
    // Whatever is kept is cut short, as by a full disk.
    await page.evaluate(() => {
      for (const key of Object.keys(localStorage)) {
        if (key !== "ironpeel.preferences") localStorage.setItem(key, '{"limits": [{');
      }
    });
    await page.goto(path);
    await open?.(page);
    await expect(box).toHaveValue(recorded);
    await expect(page.getByText("This view failed")).toHaveCount(0);
  });
}

test("a product that is edited says so where products are chosen, and an earlier draft still opens", async ({
  page,
}) => {
  await page.goto("/");
  const product = page.getByRole("link", { name: /^Causeway Stick/ });
  await expect(product).toBeVisible();
  await expect(product).not.toContainText("edited, not saved");
  await page.evaluate(() => {
    const stage = (kind: string, label: string, adds: string[]) => ({
      kind,
      label,
      minutes: 5,
      end_point: "look",
      adds,
    });
    const stages = [stage("mix", "Mix", []), stage("mix", "Salt in", ["salt"])];
    const draft = { process: "straight_bulk", target_c: 25, stages };
    localStorage.setItem("ironpeel.method-draft.causeway-stick", JSON.stringify(draft));
  });
  await page.reload();
  await expect(product).toContainText("edited, not saved");
  await page.goto("/method/stages?product=causeway-stick");
  await expect(page.getByText("Salt in").first()).toBeVisible();
  await expect(page.getByText(/· salt in/)).toBeVisible();
  await page.getByRole("button", { name: "Discard" }).click();
  await page.goto("/");
  await expect(product).not.toContainText("edited, not saved");
});
