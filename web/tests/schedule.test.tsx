import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { stretches } from "../src/figures/ScheduleClock";
import { DAY_KEY, dayInput, keptDay, minutesOf } from "../src/method/schedule";
import { fieldOf } from "../src/units/clock";
import { SchedulePage } from "../src/method/SchedulePage";
import { store } from "../src/storage/stored";
import { computed, inHand, open } from "./page";

const HOUR = 3_600_000;

test("times of day are read as people write them", () => {
  for (const [text, minutes] of [
    ["22:00", 1320],
    [" 4:05 ", 245],
    ["0:00", 0],
    ["24:00", null],
    ["4", null],
    ["4:75", null],
    ["noon", null],
  ] as const)
    expect(minutesOf(text), text).toBe(minutes);
});

test("a field for a moment is the moment's own day and hour", () => {
  const moment = new Date(2026, 10, 5, 4, 7);
  expect(fieldOf(moment)).toBe("2026-11-05T04:07");
  expect(new Date(fieldOf(moment)).getTime()).toBe(moment.getTime());
});

test("a plan begins with tomorrow at five, and the last one asked is kept until it is over", () => {
  const now = new Date(2026, 10, 25, 14, 0);
  expect(keptDay(undefined, now)).toEqual({
    by: "out_by",
    at: "2026-11-26T05:00",
    closed_hours: [{ from: "22:00", to: "4:00" }],
  });
  const asked = { by: "from" as const, at: "2026-11-27T09:00", closed_hours: [] };
  expect(keptDay(asked, now)).toEqual(asked);
  expect(keptDay(asked, new Date(2026, 11, 1, 14, 0))).toEqual({
    ...asked,
    at: "2026-12-02T05:00",
  });
});

test("what is asked goes to the server as a moment by the plant's clock", () => {
  const input = dayInput(
    { by: "from", at: "2026-11-27T09:00", closed_hours: [] },
    new Date(2026, 10, 26),
  );
  expect(input.not_before).toBe(new Date(2026, 10, 26).toISOString());
  expect(input.anchor).toEqual({ by: "from", at: new Date(2026, 10, 27, 9, 0).toISOString() });
  expect(input.zone, "the plant's").toBeUndefined();
});

test("closed hours are drawn each day they touch, cut to what is shown", () => {
  const start = new Date(2026, 10, 25, 20, 0).getTime();
  const end = start + 30 * HOUR;
  const night = stretches(start, end, [{ from: 22 * 60, to: 4 * 60 }]);
  expect(night.map(([from, to]) => [(from - start) / HOUR, (to - start) / HOUR])).toEqual([
    [2, 8],
    [26, 30],
  ]);
  const noon = stretches(start, end, [{ from: 12 * 60, to: 13 * 60 }]);
  expect(noon.map(([from, to]) => (to - from) / HOUR)).toEqual([1]);
  expect(stretches(start, start + HOUR, [{ from: 22 * 60, to: 4 * 60 }])).toEqual([]);
});

const SOON = new Date(Date.now() + 64 * HOUR);
SOON.setHours(5, 0, 0, 0);

const keepSoon = () =>
  store(DAY_KEY, {
    by: "out_by",
    at: fieldOf(SOON),
    closed_hours: [{ from: "22:00", to: "4:00" }],
  });
beforeEach(keepSoon);
afterEach(() => vi.restoreAllMocks());

async function planned(product: string, lot: string) {
  keepSoon();
  const opened = open(<SchedulePage />, { at: await inHand("/method/schedule", product, lot) });
  await computed();
  const table = await screen.findByRole("table", { name: "The stages with their hours" });
  return { ...opened, table };
}

test("a dough for five in the morning is fitted around the night", async () => {
  const { table } = await planned("deck-roll-60", "VR-26-1090");
  const rows = within(table).getAllByRole("row").slice(1);
  expect(rows.length).toBeGreaterThanOrEqual(8);
  for (const row of rows.filter((one) =>
    /Pick-up|Develop|Divide|Bake/.test(one.textContent ?? ""),
  )) {
    const hour = Number(/(\d\d):\d\d/.exec(row.textContent ?? "")?.[1]);
    expect(hour >= 4 && hour < 22, row.textContent ?? "").toBe(true);
  }
  expect(screen.getByText(/before it was asked for, to keep clear/)).toBeTruthy();
  expect(document.querySelectorAll("figure svg rect").length).toBeGreaterThan(rows.length);
});

test("hours that leave no way say what is in the way, and come off again", async () => {
  const { user } = await planned("ferry-tin-short", "VR-26-1090");
  await user.click(screen.getByRole("button", { name: "More hours" }));
  const from = screen.getByLabelText("Closed hours, from, 2");
  await user.clear(from);
  await user.type(from, "4:30");
  const to = screen.getByLabelText("Closed hours, to, 2");
  await user.clear(to);
  await user.type(to, "21:45");
  await screen.findByText(/falls into the closed hours/);
  await user.click(screen.getByRole("button", { name: "Remove closed hours, 2" }));
  await screen.findByRole("table", { name: "The stages with their hours" });
});

test("an hour that is none is told at its field and kept as it was typed", async () => {
  const { user } = await planned("deck-roll-60", "VR-26-1090");
  const from = screen.getByLabelText<HTMLInputElement>("Closed hours, from, 1");
  await user.clear(from);
  await user.type(from, "late");
  await screen.findByText(/“late” is no time of day, such as 22:00/);
  expect([from.value, from.getAttribute("aria-invalid")]).toEqual(["late", "true"]);
});

test("the plan is saved as a calendar", async () => {
  const { user } = await planned("deck-roll-60", "VR-26-1090");
  let saved: Blob | undefined;
  URL.createObjectURL = (blob: Blob) => ((saved = blob), "blob:dough");
  URL.revokeObjectURL = () => {};
  const click = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => {});
  await user.click(screen.getByRole("button", { name: "Save as a calendar" }));
  await waitFor(() => expect(click).toHaveBeenCalledOnce());
  const text = (await saved?.text()) ?? "";
  expect(text).toMatch(/^BEGIN:VCALENDAR/);
  expect(text.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThanOrEqual(8);
});

test("spare balls are kept frozen for another day, or it is told why not", async () => {
  const { user } = await planned("ebb-flats-240", "VP-26-0435");
  await user.click(await screen.findByRole("button", { name: "Freeze surplus pieces" }));
  const told = await screen.findByRole("heading", { name: "4 surplus pieces" });
  expect(told.parentElement?.textContent).toMatch(
    /Into the freezer .* into the refrigerator .* out/,
  );
  const on = screen.getByLabelText<HTMLInputElement>("To be used");
  fireEvent.change(on, { target: { value: fieldOf(new Date(SOON.getTime() - 30 * HOUR)) } });
  await screen.findByText(/before then they cannot be frozen and thawed again/);
  expect(on.getAttribute("aria-invalid")).toBe("true");
  await user.click(screen.getByRole("button", { name: "None" }));
  await screen.findByRole("table", { name: "The stages with their hours" });
  expect(screen.queryByRole("heading", { name: /surplus pieces/ })).toBeNull();
});

test("a sour says when to feed its starter, and what can wait says how long", async () => {
  const { table } = await planned("holm-tin", "BS-0430");
  const fed = await screen.findByRole("heading", { name: /^Refresh the starter/ });
  expect(fed.parentElement?.textContent).toMatch(/\d+ g starter, [\d\s]+ g flour, [\d\s]+ g water/);
  expect(screen.queryByRole("button", { name: "Freeze surplus pieces" })).toBeNull();
  const proof = within(table).getByRole("row", { name: /Proof in the tin/ });
  expect(within(proof).getAllByRole("cell").at(-1)?.textContent).toBe("22 min");
  const mix = within(table).getByRole("row", { name: /Salt and the held-back water/ });
  expect(within(mix).getAllByRole("cell").at(-1)?.textContent).toBe("");
});
