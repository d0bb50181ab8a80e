import { screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { DoughPage } from "../src/dough/DoughPage";
import { computed, inHand, open, place } from "./page";

async function dough(product: string, lot: string, more = "") {
  const opened = open(<DoughPage />, { at: await inHand("/dough", product, lot, more) });
  await computed();
  await screen.findByRole("heading", { level: 1 });
  return opened;
}

const field = (label: string) => screen.findByLabelText<HTMLInputElement>(label);

async function type(user: Awaited<ReturnType<typeof dough>>["user"], label: string, text: string) {
  const input = await field(label);
  await user.clear(input);
  await user.type(input, `${text}{Enter}`);
}

const row = (name: RegExp) => screen.getByRole("row", { name });

test("a plain formula is one column of percent with its masses", async () => {
  await dough("deck-roll-60", "VR-26-1090");
  expect((await field("salt, percent on flour")).value).toBe("1.9 %");
  expect(within(row(/^flour/)).getByText(/Tarn Strong VR-26-1090/)).toBeTruthy();
  expect(row(/^total/).textContent).toContain("160.00 kg");
  expect(screen.queryByRole("columnheader", { name: "final dough" })).toBeNull();
  expect(screen.getByRole("columnheader", { name: "rounding" })).toBeTruthy();
  expect(screen.getByText(/Contains: cereals containing gluten/)).toBeTruthy();
});

test("a formula with parts has a column for each, and they add up", async () => {
  await dough("kesh-dark", "KR-26-0466");
  const heads = screen.getAllByRole("columnheader").map((head) => head.textContent);
  expect(heads).toEqual([
    "ingredient",
    "% on flour",
    "rye sour",
    "scald",
    "final dough",
    "one batch",
    "take out",
  ]);
  const figures = (row(/^total/).textContent ?? "").match(/[\d.]+(?= %)/g)?.map(Number) ?? [];
  const [whole = 0, sour = 0, scald = 0, final = 0] = figures;
  expect(sour + scald + final).toBeCloseTo(whole, 1);
  const flour = await field("Kesh Rye in the scald, percent on all flour");
  expect(flour.value).toBe("10 %");
  expect((await field("Tarn Plain in the scald, percent on all flour")).value).toBe("");
  expect(screen.getByText(/Boiling water burns/)).toBeTruthy();
});

test("a share of flour moves the main one, and a flour goes out with its share", async () => {
  const { user } = await dough("kesh-dark", "KR-26-0466");
  await type(user, "Tarn Plain, percent on flour", "40");
  await waitFor(() =>
    expect(place.scenario.draft?.flours).toEqual([
      { name: "Kesh Rye", share_pct: 60 },
      { name: "Tarn Plain", share_pct: 40 },
    ]),
  );
  await user.click(screen.getByRole("button", { name: "Take Tarn Plain out" }));
  await waitFor(() => expect(place.scenario.draft?.flours).toEqual([]));
  expect(screen.queryByRole("button", { name: "Take Kesh Rye out" })).toBeNull();
});

test("a flour comes in with a lot of its own", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await user.selectOptions(await field("Add a flour"), "Rigg Spelt");
  await waitFor(() =>
    expect(place.scenario.draft?.flours).toEqual([
      { name: "Tarn Strong", share_pct: 90 },
      { name: "Rigg Spelt", share_pct: 10 },
    ]),
  );
  const lots = await screen.findByLabelText<HTMLSelectElement>("Lot of Rigg Spelt");
  await waitFor(() => expect(lots.value).not.toBe(""));
  const other = [...lots.options].at(-1)?.value ?? "";
  await user.selectOptions(lots, other);
  expect(place.search.get("with")).toBe(other);
  await computed();
});

test("an ingredient comes in and goes out, and out of the parts with it", async () => {
  const { user } = await dough("kesh-dark", "KR-26-0466");
  await type(user, "seeds in the scald, percent on all flour", "3");
  expect(place.scenario.draft?.parts?.[1]?.lines).toEqual([{ ingredient: "seeds", pct: 3 }]);
  await user.click(screen.getByRole("button", { name: "Take seeds out" }));
  expect(place.scenario.draft?.lines?.some((line) => line.ingredient === "seeds")).toBe(false);
  expect(place.scenario.draft?.parts?.[1]?.lines).toEqual([]);
  await user.selectOptions(await field("Add an ingredient"), "honey");
  expect(place.scenario.draft?.lines?.at(-1)).toEqual({ ingredient: "honey", pct: 1 });
});

test("a part is split off as its kind usually is, and put back", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await user.selectOptions(await field("Add preferment or soaker"), "Starter");
  await user.selectOptions(await field("Add preferment or soaker"), "Starter");
  await waitFor(() =>
    expect(place.scenario.draft?.parts?.map((part) => part.name)).toEqual(["starter", "starter 2"]),
  );
  const [first] = screen.getAllByRole("button", { name: "Final dough" });
  if (first) await user.click(first);
  expect(place.scenario.draft?.parts?.map((part) => part.name)).toEqual(["starter 2"]);
});

test("a starter is stated in any convention and is the same starter", async () => {
  const { user } = await dough("holm-tin", "BS-0430");
  const box = screen.getByRole("region", { name: "Preferments and soakers" });
  await within(box).findByText("15.00 %");
  const figures = () => [...box.querySelectorAll("dd")].map((one) => parseFloat(one.textContent));
  const [fermented = 0, onFinal = 0] = figures();
  expect(onFinal).toBeCloseTo((100 * 2 * fermented) / (100 - fermented), 1);
  await type(user, "Share", "40");
  await waitFor(() => expect(place.scenario.draft?.parts?.[0]?.flour_pct).toBeCloseTo(16.6667, 3));
  expect(place.scenario.draft?.parts?.[0]?.water_pct).toBeCloseTo(16.6667, 3);
  await user.selectOptions(
    screen.getByLabelText("How the whole-wheat sour is stated"),
    "its flour, of all flour",
  );
  await type(user, "Share", "100");
  await screen.findByText(/no dough has so much starter/);
});

test("a fault is told at its line and the rest stays", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await type(user, "salt, percent on flour", "-2");
  await screen.findByText("percent on flour must be from 0 to 100 %; -2 was given");
  expect((await field("salt, percent on flour")).getAttribute("aria-invalid")).toBe("true");
  expect((await field("fat, percent on flour")).getAttribute("aria-invalid")).toBeNull();
  await user.click(screen.getByRole("button", { name: "Discard" }));
  await computed();
  expect(place.scenario.draft).toBeUndefined();
});

test("parts wetter than the whole dough are told with both figures", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await user.selectOptions(await field("Add preferment or soaker"), "Sponge");
  await type(user, "water in the sponge, percent on all flour", "95");
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toMatch(/take 95.0 % of water, the whole dough has 58.5 %/);
});

test("a dough is scaled five ways, each beginning where the last one was", async () => {
  const { user } = await dough("ferry-tin-short", "VR-26-1090");
  const ways = [
    ["pieces", "pieces", "Pieces wanted"],
    ["baked", "baked", "Good baked pieces wanted"],
    ["dough", "dough", "Dough wanted, all of it"],
    ["flour", "from", "Flour there is, all of it"],
    ["mixers", "mixer", "Full mixers"],
  ] as const;
  for (const [name, key, label] of ways) {
    await user.click(screen.getByRole("radio", { name }));
    await field(label);
    expect(Number(place.search.get(key)), name).toBeGreaterThan(0);
    await computed();
    expect(screen.getByText("one batch", { selector: "span" })).toBeTruthy();
    expect(row(/^total/).textContent).toMatch(/49\d\.|500\.|50\d\./);
  }
});

test("the scale's division is the line's until another is chosen", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  const division = await field("Scale resolution");
  expect(division.value).toBe("0.01");
  await user.selectOptions(division, "0.5");
  await waitFor(() => expect(screen.getAllByText(/is too coarse/).length).toBeGreaterThan(0));
});

test("piece, losses and style are edited with the formula", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await user.click(screen.getByText("Piece"));
  await type(user, "Scaled at", "80 g");
  await type(user, "Process loss in the bake", "20");
  await type(user, "Wetter by style, points", "2");
  expect([
    place.scenario.draft?.piece_kg,
    place.scenario.draft?.style_points,
    place.scenario.draft?.losses?.bake_pct,
  ]).toEqual([0.08, 2, 20]);
  await screen.findByText(/pieces of 80 g/);
  await type(user, "Process loss in the bake", "90");
  await screen.findByText(/bake loss must be from 0 to 40 %/);
});

test("one mass is changed and the dough keeps its own", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090", "&dough=80");
  await user.selectOptions(await field("Ingredient"), "salt");
  await user.selectOptions(await field("Keep constant"), "the dough");
  await type(user, "New weight, one batch", "2 kg");
  await waitFor(() => expect(Number(place.search.get("water"))).toBeGreaterThan(50));
  expect(Number(place.search.get("dough"))).toBeCloseTo(80, 2);
  await waitFor(() => expect(row(/^salt/).textContent).toContain("2.00 kg"));
});

test("a change that cannot be is told where it was asked", async () => {
  const { user } = await dough("deck-roll-60", "VR-26-1090");
  await user.selectOptions(await field("Ingredient"), "salt");
  await user.selectOptions(await field("Keep constant"), "the dough");
  await type(user, "New weight, one batch", "900 kg");
  await screen.findByText(/nothing else is left to take up the difference/);
  expect(place.search.get("water")).toBeNull();
});

test("without a dough in hand the page says how to take one", async () => {
  open(<DoughPage />, { at: "/dough" });
  await screen.findByText("No product selected");
  expect(screen.getByRole("link", { name: "Choose a product" })).toBeTruthy();
});
