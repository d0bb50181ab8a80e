import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, expect, test } from "vitest";
import { fieldOf } from "../src/units/clock";
import { LinePage } from "../src/method/LinePage";
import { DoughTemperaturePage } from "../src/method/DoughTemperaturePage";
import { FermentationPage } from "../src/method/FermentationPage";
import { keptRun, stopInput } from "../src/method/run";
import { ProductionRunPage } from "../src/method/ProductionRunPage";
import { SpongePage } from "../src/method/SpongePage";
import { StagesPage } from "../src/method/StagesPage";
import { StarterPage } from "../src/method/StarterPage";
import { ProcessComparisonPage } from "../src/method/ProcessComparisonPage";
import { computed, inHand, open, place } from "./page";

const HOUR = 3_600_000;
const STRONG = "VR-26-1090";

beforeEach(() => localStorage.clear());

async function held(page: React.ReactNode, path: string, product: string, more = "") {
  const opened = open(page, {
    at: await inHand(path, product, STRONG, more),
  });
  await computed();
  return opened;
}

/** Takes a number over in a field. */
async function take(user: ReturnType<typeof userEvent.setup>, field: HTMLElement, text: string) {
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
}

test("a stage is changed, moved and taken out, and all of it is undone", async () => {
  const { user } = await held(<StagesPage />, "/method/stages", "ferry-tin-short");
  await user.click(await screen.findByRole("button", { name: "Change Development" }));
  await take(user, screen.getByLabelText("Lasts"), "9");
  expect(place.scenario.method?.stages?.[1]?.minutes).toBe(9);
  await screen.findByText(/Edited, not saved/);
  await user.click(screen.getByRole("button", { name: "Later" }));
  expect(place.scenario.method?.stages?.[2]?.label).toBe("Development");
  await user.click(screen.getByRole("button", { name: "Remove stage" }));
  expect(place.scenario.method?.stages?.map((stage) => stage.label)).not.toContain("Development");
  for (let i = 0; i < 3; i++) await user.keyboard("{Control>}z{/Control}");
  await waitFor(() => expect(place.scenario.method).toBeUndefined());
  expect(screen.queryByText(/Edited, not saved/)).toBeNull();
});

test("minutes outside what is allowed are told at their field, and outside the usual beside it", async () => {
  const { user } = await held(<StagesPage />, "/method/stages", "ferry-tin-800");
  await user.click(await screen.findByRole("button", { name: "Change Sponge in the trough" }));
  await take(user, screen.getByLabelText("Lasts"), "300");
  await screen.findByText(/300 min are planned, and 165 to 270 are allowed here/);
  await take(user, screen.getByLabelText("At most"), "320");
  await screen.findByText(/Usual is 2 h 30 to 4 h 30: hydration, not a hotter room/);
});

test("a method is recorded with who and why, and an old state taken up again", async () => {
  const { user } = await held(<StagesPage />, "/method/stages", "lantern-flats", "");
  // Another figure each time, should the plant have been here before.
  const celsius = (20 + Math.random() * 5).toFixed(2);
  await take(user, await screen.findByLabelText("Off the mixer"), celsius);
  await user.click(await screen.findByRole("button", { name: /^Save revision/ }));
  await screen.findByText(/why is it changed/);
  await user.type(screen.getByLabelText("Why"), "cooler in summer");
  await user.click(screen.getByRole("button", { name: /^Save revision/ }));
  await waitFor(() => expect(place.scenario.method).toBeUndefined());
  await screen.findAllByText(/cooler in summer/);
  const first = screen.getAllByRole("button", { name: "Restore" }).at(-1);
  if (first) await user.click(first);
  await waitFor(() => expect(place.scenario.method?.target_c).toBe(27));
});

test("a step of two schools is left out and made good", async () => {
  const { user } = await held(<StagesPage />, "/method/stages", "causeway-stick");
  const autolyse = await screen.findByRole<HTMLInputElement>("checkbox", { name: "Autolyse" });
  expect(autolyse.checked).toBe(true);
  await user.click(autolyse);
  await waitFor(() =>
    expect(place.scenario.method?.stages?.map((stage) => stage.label)).toContain(
      "One more set of folds",
    ),
  );
  expect(screen.getByText(/one more set of folds does the same/)).toBeTruthy();
  const families = screen.getByLabelText("Begin again from");
  await user.selectOptions(families, await screen.findByRole("option", { name: /^Frozen dough/ }));
  expect(place.scenario.method?.process).toBe("frozen");
});

test("the floor's rule stands beside the balance, and a measured dough teaches it", async () => {
  const { user } = await held(<DoughTemperaturePage />, "/method", "ferry-tin-short");
  const rule = await screen.findByRole("region", { name: "Friction factor method" });
  const before = /learned from (\d+) dough/.exec(rule.textContent ?? "")?.[1];
  const form = screen.getByRole("region", { name: "Measured dough temperature" });
  for (const [label, value] of [
    ["Flour was", "21"],
    ["Room was", "23"],
    ["Water was", "6"],
    ["Dough was", "270"],
  ] as const)
    await take(user, within(form).getByLabelText(label), value);
  await user.click(within(form).getByRole("button", { name: "Save" }));
  await within(form).findByText(/dough temperature must be from −?-?5 to 60 °C/);
  await take(user, within(form).getByLabelText("Dough was"), "27");
  await user.click(within(form).getByRole("button", { name: "Save" }));
  const doughs = String(Number(before ?? 0) + 1);
  await waitFor(() => expect(rule.textContent).toContain(`learned from ${doughs} dough`));
});

test("the mixer's jacket is a lever, then runs", async () => {
  const { user } = await held(<DoughTemperaturePage />, "/method", "ferry-tin-800");
  await screen.findByRole("row", { name: /^the mixer's jacket on/ });
  await user.click(screen.getByRole("checkbox", { name: /The mixer's jacket runs/ }));
  expect(place.search.get("jacket")).toBe("on");
  await waitFor(() =>
    expect(screen.queryByRole("row", { name: /^the mixer's jacket on/ })).toBeNull(),
  );
});

test("what a July dough needs is said when ice cannot save it", async () => {
  await held(<DoughTemperaturePage />, "/method", "ferry-tin-800", "&flour=32&room=33&tap=24");
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toContain("The target cannot be reached");
  for (const message of [/flour \d+\.\d °C cooler/, /minutes less mixing/, /jacket on/])
    expect(alert.textContent).toMatch(message);
});

test("the line's figures are revised with a reason, and hold at once", async () => {
  const { user } = await held(<LinePage />, "/method/line", "deck-roll-60");
  const form = await screen.findByRole("region", { name: "The line's figures" });
  expect(screen.getByRole("row", { name: /, this method: \d/ })).toBeTruthy();
  expect(screen.getByText(/measured doughs give/)).toBeTruthy();
  const pieces = String(2000 + Math.floor(Math.random() * 900));
  await take(user, within(form).getByLabelText("Oven holds, pieces"), "0");
  await user.type(within(form).getByLabelText("Why"), "a deck is out");
  await user.click(within(form).getByRole("button", { name: /^Save revision/ }));
  await within(form).findByText(/oven must be from 1 to/);
  await take(user, within(form).getByLabelText("Oven holds, pieces"), pieces);
  await user.click(within(form).getByRole("button", { name: /^Save revision/ }));
  await screen.findAllByText(/a deck is out/);
  expect(screen.getByLabelText<HTMLInputElement>("Oven holds, pieces").value).toBe(pieces);
});

test("a sponge is solved, hurried, and its warmth taken into the formula", async () => {
  const { user } = await held(<SpongePage />, "/method/sponge", "ferry-tin-800");
  await screen.findByText("set it at");
  await screen.findByText("Mix the sponge longer");
  await take(user, screen.getByLabelText("End of the sponge"), "99");
  await screen.findByText(/end of the sponge must be from 15 to 40 °C/);
  await take(user, screen.getByLabelText("End of the sponge"), "28.5");
  await take(user, screen.getByLabelText("Time, h"), "4");
  expect(place.scenario.method?.stages?.[1]?.minutes).toBe(240);
  await user.click(await screen.findByRole("button", { name: /^Take 28\.\d °C into it/ }));
  const part = place.scenario.draft?.parts?.find((one) => one.kind === "sponge");
  expect(part?.temperature_c).toBeGreaterThan(28);
});

test("a dough without a sponge says how to give it one", async () => {
  await held(<SpongePage />, "/method/sponge", "ferry-tin-short");
  await screen.findByText(/Ferry Tin Short has no sponge/);
});

test("both ways stand side by side, and the other one's stages are taken up", async () => {
  const { user } = await held(
    <ProcessComparisonPage />,
    "/method/straight-or-sponge",
    "ferry-tin-800",
  );
  const table = await screen.findByRole("table", { name: "Straight and sponge compared" });
  for (const row of ["Water the dough takes", "Troughs in use, and their floor", "Flavour"])
    expect(within(table).getByRole("row", { name: new RegExp(`^${row}`) })).toBeTruthy();
  expect(screen.getByText(/W at least 260/)).toBeTruthy();
  await user.click(screen.getByRole("button", { name: "Use its stages" }));
  expect(place.scenario.method?.process).toBe("no_time");
});

test("a starter is fed for an hour, or followed by its parts", async () => {
  const { user } = open(<StarterPage />, { at: "/method/starter" });
  await screen.findByText(/1 to 8\.1 to 8\.1/);
  expect(screen.getByText(/ripe: doubled and domed/)).toBeTruthy();
  await take(user, screen.getByLabelText("Flour per part of old starter"), "2");
  await screen.findByText(/1 to 2\.0 to 2\.0/);
  expect(screen.getByLabelText<HTMLInputElement>("Ripe at").value).toBe("");
  await take(user, screen.getByLabelText("Ambient"), "2");
  await screen.findByText("not within a week");
  expect(screen.getByText("ripe: warm it, or feed it less")).toBeTruthy();
  await take(user, screen.getByLabelText("Ambient"), "70");
  await screen.findByText(/where it stands must be from 0 to 40 °C/);
});

test("tonight's readings move the estimate, and are kept", async () => {
  const { user } = await held(<FermentationPage />, "/method/fermentation", "ferry-tin-short");
  const tonight = await screen.findByRole("region", { name: "Tonight's readings" });
  await take(user, within(tonight).getByLabelText("After, min"), "40");
  await take(user, within(tonight).getByLabelText("Risen"), "12");
  await user.click(within(tonight).getByRole("button", { name: "Add" }));
  await within(tonight).findByText(/of the model's speed/);
  expect(localStorage.getItem("ironpeel.readings.ferry-tin-short")).toContain('"minutes":40');
  await user.click(within(tonight).getByRole("button", { name: "Take the reading at 40 min out" }));
  expect(within(tonight).queryByText(/of the model's speed/)).toBeNull();
});

test("a run that is over is planned anew, its moves forgotten", () => {
  const now = new Date(2026, 10, 25, 14, 0);
  const run = { ...keptRun(undefined, now), shifts: [{ dough: 1, stage: 1, by_min: 5 }] };
  expect(keptRun(run, now)).toEqual(run);
  const later = keptRun(run, new Date(2026, 11, 1, 14, 0));
  expect([later.shifts, later.at]).toEqual([[], "2026-12-02T05:00"]);
  const at = "2026-11-26T01:00";
  expect(stopInput({ at, minutes: 90, place: "" })).toEqual({
    at: new Date(at).toISOString(),
    minutes: 90,
    place: null,
  });
});

test("ten doughs are planned, one is moved, and the line stops", async () => {
  const soon = new Date(Date.now() + 40 * HOUR);
  soon.setHours(5, 0, 0, 0);
  const kept = JSON.stringify({ ...keptRun(), at: fieldOf(soon) });
  const at = await inHand("/method/production-run", "ferry-tin-800", STRONG, "&mixer=10");
  const { user } = open(<ProductionRunPage />, { at });
  localStorage.setItem("ironpeel.run.ferry-tin-800", kept);
  await computed();
  const table = await screen.findByRole("table", { name: "When each dough begins each stage" });
  expect(within(table).getAllByRole("row")).toHaveLength(11);
  expect(screen.getByRole("heading", { name: "The mixer is the bottleneck" })).toBeTruthy();
  const third = within(table).getByRole("button", { name: /^Dough 3, Pick-up/ });
  await user.click(third);
  const was = third.textContent;
  await user.click(screen.getByRole("button", { name: "15 minutes later" }));
  await waitFor(() => expect(third.textContent).not.toBe(was));
  await user.click(screen.getByRole("button", { name: "As it was planned" }));
  await waitFor(() => expect(third.textContent).toBe(was));

  await user.click(screen.getByRole("button", { name: "Line stoppage" }));
  const from = screen.getByLabelText("Stopped from");
  fireEvent.change(from, { target: { value: fieldOf(new Date(soon.getTime() - 3.7 * HOUR)) } });
  const late = await screen.findByRole("heading", { name: /go beyond their limits/ });
  expect(late).toBeTruthy();
  expect(screen.getAllByText("Bake it off and discard it").length).toBeGreaterThan(0);
  await user.click(screen.getAllByRole("button", { name: /^Plan the rest without dough/ })[0]!);
  await screen.findByText(/Planned without dough/);
  await user.click(screen.getByRole("button", { name: "Restart" }));
  await waitFor(() => expect(screen.queryByText(/Planned without dough/)).toBeNull());
});
