import AxeBuilder from "@axe-core/playwright";
import { expect, test as base, type Page } from "@playwright/test";

/** A page on which nothing may be logged as an error: no broken policy, no failing script. */
export const test = base.extend<{ quiet: string[] }>({
  quiet: [
    async ({ page }, use) => {
      const said: string[] = [];
      page.on("pageerror", (error) => said.push(error.message));
      page.on("console", (message) => {
        // A refused request is the journey's own business, and shown on the page.
        if (message.type() === "error" && !message.text().startsWith("Failed to load resource")) {
          said.push(message.text());
        }
      });
      await use(said);
      // What a journey answers itself may still be under way when it ends.
      await page.unrouteAll({ behavior: "ignoreErrors" });
      expect(said).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** A link of the chain. */
export const link = (page: Page, name: string) =>
  page
    .getByRole("navigation", { name: "The chain" })
    .getByRole("link", { name: new RegExp(`^${name}`) });

/** A day so long ago: the demo plant's own lots move on with the day. */
export const daysAgo = (days: number) =>
  new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

/**
 * The one-lot certificate of the mill, with a code of the journey's own; delivered before any lot
 * of the demo plant that a journey compares with the one before it.
 */
export const certificate = (code: string, rows: string[]) => ({
  name: "certificate.csv",
  mimeType: "text/csv",
  buffer: Buffer.from(
    [
      "mill;Vennick Roller Mill",
      "product;Tarn Strong",
      `lot;${code}`,
      `milled;${daysAgo(47)}`,
      `delivered;${daysAgo(45)}`,
      "tonnes;24,6",
      "property;value;unit;basis;method",
      ...rows,
    ].join("\n"),
  ),
});

export const GOOD = [
  "moisture;14,1;%;as is;ISO 712",
  "protein;13,0;%;14 %;ISO 16634-2",
  "ash;0,61;%;dry matter;ISO 2171",
  "wet gluten;31,4;%;14 %;ISO 21415-2",
  "falling number;342;s;;ISO 3093",
  "damaged starch;8,4;%;as is;AACC 76-31",
  "absorption;63,3;%;14 %;ISO 5530-1",
  "stability;11,5;min;;ISO 5530-1",
  "W;298;10-4 J;;ISO 27971",
];

export async function drop(page: Page, file: { name: string; mimeType: string; buffer: Buffer }) {
  await page.locator("input[type=file]").first().setInputFiles(file);
}

/** Pages of a PDF. */
export function pages(pdf: Buffer): number {
  return pdf.toString("latin1").match(/\/Type\s*\/Page[^s]/g)?.length ?? 0;
}

/** A tablet, and a screen of 1280 by 800 at 200 % zoom. */
const SIZES = [
  { width: 820, height: 1180 },
  { width: 640, height: 400 },
];

/** What keeps somebody from using the page as it stands, by the rules named or by all. */
export async function barriers(page: Page, ...rules: string[]) {
  // No frames stand in a page, so that no page of its own is opened to gather from them.
  const asked = new AxeBuilder({ page }).setLegacyMode(true);
  const { violations } = await (rules.length ? asked.withRules(rules) : asked).analyze();
  return violations.map(({ id, nodes }) => [id, nodes.map((node) => node.html)]);
}

/** Nothing on the page keeps anybody from using it, on a tablet or at 200 % zoom either. */
export async function everybodyCanUse(page: Page) {
  expect(await barriers(page)).toEqual([]);
  for (const size of SIZES) {
    await page.setViewportSize(size);
    const wider = () => document.documentElement.scrollWidth - window.innerWidth;
    expect(await page.evaluate(wider), `${size.width} wide`).toBeLessThanOrEqual(0);
  }
}

/** Opens a view with a lot of the demo plant, by its code. */
export const openLot = async (page: Page, code: string, path = "/flour") => {
  const found = await page.request.get(`/api/v1/find?q=${code}`);
  const [lot] = (await found.json()) as { id: string }[];
  await page.goto(`${path}?product=deck-roll-60&lot=${lot?.id}`);
};
