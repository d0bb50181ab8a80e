import { fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import type { ReactElement } from "react";
import { MemoryRouter } from "react-router";
import { beforeEach, expect, test, vi } from "vitest";
import type { Schemas } from "../src/api/client";
import { BoardPage } from "../src/floor/BoardPage";
import { FinishForm } from "../src/floor/FinishForm";
import { Keypad } from "../src/floor/Keypad";
import { limitNear } from "../src/floor/limit";
import { NextAction } from "../src/floor/NextAction";
import { withStamps } from "../src/floor/pending";
import { quantitiesOf, signsOf, type Run } from "../src/floor/run";
import { RunActions } from "../src/floor/RunActions";
import { eventText, RunHistory, UndoLast } from "../src/floor/RunHistory";
import { RunReport } from "../src/floor/RunReport";
import { RunStages } from "../src/floor/RunStages";
import type { Said, Stamp } from "../src/floor/stamp";
import { StarterFeed } from "../src/floor/StarterFeed";
import { WeighLines } from "../src/floor/WeighLines";
import { Format } from "../src/units/format";
import { PreferencesProvider, USUAL, type Preferences } from "../src/units/preferences";
import { open } from "./page";

const NOW = Date.now();
const iso = (minutes: number) => new Date(NOW + minutes * 60_000).toISOString();

const stage = (
  id: string,
  label: string,
  kind: Schemas["StageKind"],
  minutes: number,
  ended_by: Schemas["EndedBy"],
): Run["stages"][number] => ({
  stage: id,
  kind,
  role: kind === "mix" ? "mixing" : kind === "bake" ? "bake" : "proof",
  label,
  at_min: 0,
  minutes,
  low_min: minutes * 0.8,
  high_min: minutes * 1.2,
  ends_when: "it is so",
  end_point: "look",
  ended_by,
  drops_at: 0.66,
  kj_per_kg_min: 0,
  folds_at_min: [],
  cautions: kind === "mix" ? ["Guard shut; locked out before any hand goes in."] : [],
});

const STAGES = [
  stage("mix", "Mixing", "mix", 10, "windowpane"),
  stage("proof", "Proof", "proof", 60, "height"),
];

const time = (at: number, began: number, ended?: number): Schemas["StageTimes"] => ({
  stage: STAGES[at]?.stage ?? "",
  planned_begin: iso(began),
  planned_end: iso(began + 10),
  begun_at: iso(began),
  ended_at: ended === undefined ? null : iso(ended),
  expected_begin: iso(began),
  expected_end: iso(ended ?? began + 10),
  due_at: iso(began + 10),
  limit_at: iso(began + 12),
  lasted_min: 10,
  beyond_limit: false,
});

const line = (of: string, kg: number, weighed: number | null = null): Schemas["WeighedLine"] => ({
  stage: "mix",
  of,
  name: of,
  ingredient: of,
  kg,
  division_kg: 0.01,
  temperature_c: of === "water" ? 12 : null,
  is_water: of === "water",
  is_ice: false,
  weighed_kg: weighed,
  event: null,
});

/** A batch of two stages that began five minutes ago. */
const run = (change: Partial<Run> = {}): Run => ({
  id: "b",
  slug: "deck-roll-60",
  product: "Deck Roll 60",
  line: "Line 2",
  lot: "VR-26-1090",
  flour: "Tarn Strong",
  state: "running",
  planned_for: iso(-5),
  planned: {
    doughs: 1,
    flour_kg: 100,
    target_c: 27,
    mixing_kj_per_kg: 25,
    pieces: 200,
    piece_kg: 0.8,
    bake_loss_pct: 12,
    standing_correction_pts: 0,
    slicer_core_c: 38,
  },
  stages: STAGES,
  record: {
    state: "running",
    started_at: iso(-5),
    held_min: 0,
    stages: [],
    placed: [{ event: "e1", kind: "start", happened_at: iso(-5), corrected: false }],
    unplaced: [],
    withdrawn: [],
    undoable: ["e1"],
  },
  report: {
    times: [time(0, -5), time(1, 5)],
    next: { stage: "mix", due_at: iso(5), late_min: -5 },
    lines: [line("water", 60), line("flour", 100)],
  },
  recorded: [{ event: "e1", who: "Odd Marren", recorded_at: iso(-5), verified: true }],
  lots: [],
  now: iso(0),
  ...change,
});

let number = 0;
const stamped = (said: Said, minutes = 1): Stamp => ({
  id: `s${number++}`,
  happened_at: iso(minutes),
  ...said,
});

beforeEach(() => localStorage.clear());

function show(element: ReactElement, preferences: Partial<Preferences> = {}) {
  localStorage.setItem("ironpeel.preferences", JSON.stringify(preferences));
  return render(
    <PreferencesProvider>
      <MemoryRouter>{element}</MemoryRouter>
    </PreferencesProvider>,
  );
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole("button", { name }));

test("nothing stamped here leaves the batch as the server has it", () => {
  const batch = run();
  expect(withStamps(batch, [])).toBe(batch);
});

test("a stage stamped without a connection is over and the next one open", () => {
  const end = stamped({ kind: "stage_end", stage: "mix", ended_by: "windowpane" });
  const now = withStamps(run(), [end]);
  expect(now.report.next?.stage).toBe("proof");
  expect(now.report.times[0]?.ended_at).toBe(end.happened_at);
  // Due as long after it as the proof is planned.
  expect(Date.parse(now.report.next?.due_at ?? "")).toBe(Date.parse(end.happened_at) + 3_600_000);
  const both = withStamps(run(), [end, stamped({ kind: "stage_end", stage: "proof" }, 61)]);
  expect(both.report.next?.stage).toBeNull();
});

test("what is undone before it was sent was never there", () => {
  const end = stamped({ kind: "stage_end", stage: "mix" });
  const undo = stamped({ kind: "correct", corrects: end.id }, 2);
  const now = withStamps(run(), [end, undo]);
  expect(now.report.next?.stage).toBe("mix");
  expect(now.record.placed.map((one) => one.event)).toEqual(["e1"]);
});

test("what the server has can be undone without a connection", () => {
  const held = run({
    state: "held",
    record: {
      ...run().record,
      state: "held",
      held_since: iso(-2),
      held_reason: "divider",
      placed: [
        ...run().record.placed,
        { event: "e2", kind: "hold", happened_at: iso(-2), corrected: false },
      ],
    },
  });
  const now = withStamps(held, [stamped({ kind: "correct", corrects: "e2" })]);
  expect([now.state, now.record.held_since]).toEqual(["running", null]);
  const begun = withStamps(run(), [stamped({ kind: "correct", corrects: "e1" })]);
  expect([begun.state, begun.record.started_at]).toEqual(["planned", null]);
});

test("lines, holds and the end are seen at once", () => {
  const weighed = stamped({
    kind: "reading",
    quantity: "mass_kg",
    of: "water",
    stage: "mix",
    value: 60.4,
  });
  const hold = stamped({ kind: "hold", reason: "oven" }, 2);
  const resume = stamped({ kind: "resume" }, 3);
  const finish = stamped({ kind: "finish", pieces_good: 190 }, 4);
  const state = (...stamps: Stamp[]) => withStamps(run(), stamps);
  expect(state(weighed).report.lines[0]?.weighed_kg).toBe(60.4);
  expect([state(hold).state, state(hold).record.held_reason]).toEqual(["held", "oven"]);
  expect(state(hold, resume).state).toBe("running");
  expect([state(finish).state, state(finish).report.next]).toEqual(["finished", null]);
  expect(state(stamped({ kind: "scrap", reason: "fell" })).state).toBe("scrapped");
  const undone = stamped({ kind: "correct", corrects: weighed.id }, 5);
  expect(state(weighed, undone).report.lines[0]?.weighed_kg).toBeNull();
});

test("a stage's own sign comes first among those it may end by", () => {
  expect(STAGES.map((one) => signsOf(one)[0])).toEqual(["windowpane", "height"]);
  for (const one of STAGES) expect(new Set(signsOf(one)).size).toBe(signsOf(one).length);
  expect(quantitiesOf(STAGES[0])[0]).toBe("dough_c");
  expect(quantitiesOf(STAGES[1])[0]).toBe("height_mm");
  expect(quantitiesOf(undefined)).toContain("pieces");
});

test("the next action is a sentence with its figures and one stamp", () => {
  const write = vi.fn();
  show(<NextAction run={run()} may write={write} />);
  const next = screen.getByRole("region", { name: "Next action" });
  expect(next.textContent).toContain("Weigh 60.00 kg water at 12.0 °C, 100.00 kg flour.");
  expect(next.textContent).toContain("Caution: Guard shut");
  press("Mixing done");
  expect(write).toHaveBeenLastCalledWith("Mixing ended", {
    kind: "stage_end",
    stage: "mix",
    ended_by: "windowpane",
  });
  press("clears the bowl");
  press("Mixing done");
  expect(write).toHaveBeenLastCalledWith(
    "Mixing ended",
    expect.objectContaining({ ended_by: "clears_bowl" }),
  );
});

test("a limit is announced before it is passed, and after it", () => {
  const near = (limit: number) => {
    const times = [{ ...time(0, -100), limit_at: iso(limit) }, time(1, 5)];
    const { unmount } = show(
      <NextAction run={run({ report: { ...run().report, times } })} may write={vi.fn()} />,
    );
    const said = screen.queryByRole("status")?.textContent;
    unmount();
    return said;
  };
  expect(near(40)).toBeUndefined();
  expect(near(12)).toBe("12 min to its limit.");
  expect(near(-3)).toBe("Beyond its limit for 3 min.");
  // Of ten minutes under the mixer the last quarter.
  expect(limitNear({ ...time(0, -5), limit_at: iso(5) }, NOW)).toBeUndefined();
  expect(limitNear({ ...time(0, -8), limit_at: iso(2) }, NOW)).toBe(2);
  expect(limitNear({ ...time(0, -5, -1), limit_at: iso(-3) }, NOW)).toBeUndefined();
});

test("sets of folds have stamps of their own, without a connection too", () => {
  const write = vi.fn();
  const [, proof] = STAGES;
  const folds = { ...STAGES[0], kind: "fold" as const, folds_at_min: [0, 30] };
  const stages = [folds, proof] as Run["stages"];
  const next = { stage: "mix", due_at: iso(55), late_min: -55 };
  const fold = { set: 1, sets: 2, due_at: iso(-5) };
  const batch = run({ stages, report: { ...run().report, next: { ...next, fold } } });
  show(<NextAction run={batch} may write={write} />);
  expect(screen.getByText(/^Set of folds 1 of 2 at/)).toBeTruthy();
  press("Set 1 done");
  const [, said] = write.mock.calls[0] as [string, Said];
  expect(said).toMatchObject({ kind: "note", stage: "mix", of: "folds" });
  const folded = withStamps(batch, [stamped(said)]);
  expect(folded.report.next?.fold).toEqual({ set: 2, sets: 2, due_at: iso(25) });
  const both = withStamps(batch, [stamped(said), stamped(said)]);
  expect(both.report.next?.fold).toBeNull();
});

test("a starter is fed in time, and that it was is written down once", () => {
  const write = vi.fn();
  const feed = {
    at: iso(-20),
    ripe_at: iso(600),
    starter_g: 100,
    flour_g: 200,
    water_g: 200,
  } as Schemas["FeedAt"];
  const { unmount } = show(<StarterFeed run={run()} feed={feed} may write={write} />);
  const starter = screen.getByRole("region", { name: "Starter" });
  expect(starter.textContent).toContain("20 min late");
  press("Starter fed");
  const [, said] = write.mock.calls[0] as [string, Said];
  expect(said).toMatchObject({ kind: "note", of: "feed" });
  unmount();
  show(<StarterFeed run={withStamps(run(), [stamped(said)])} feed={feed} may write={write} />);
  expect(screen.getByText(/^Fed at/)).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});

test("who may not record sees what is next and no stamp", () => {
  show(<NextAction run={run()} may={false} write={vi.fn()} />);
  expect(screen.getByText(/^Weigh 60/)).toBeTruthy();
  expect(screen.queryByRole("button")).toBeNull();
});

test("before its start, held and when it is over the stamp says so", () => {
  const write = vi.fn();
  const planned = run({
    state: "planned",
    record: { ...run().record, state: "planned", started_at: null },
    report: { ...run().report, next: { stage: null, due_at: iso(20), late_min: -20 } },
  });
  const { unmount } = show(<NextAction run={planned} may write={write} />);
  press("Start");
  expect(write).toHaveBeenLastCalledWith("started", { kind: "start" });
  unmount();
  const held = run({
    state: "held",
    record: { ...run().record, state: "held", held_since: iso(-1), held_reason: "divider" },
  });
  const again = show(<NextAction run={held} may write={write} />);
  expect(screen.getByText(/: divider\./)).toBeTruthy();
  press("Resume");
  expect(write).toHaveBeenLastCalledWith("resumed", { kind: "resume" });
  again.unmount();
  show(<NextAction run={run({ state: "scrapped" })} may write={write} />);
  expect(screen.getByText(/Bake live dough before it is thrown away/)).toBeTruthy();
});

test("lines are ticked one by one, all at once, or with another mass", () => {
  const write = vi.fn();
  show(<WeighLines run={run()} may write={write} />);
  press("water weighed");
  expect(write).toHaveBeenLastCalledWith("water weighed", {
    kind: "reading",
    quantity: "mass_kg",
    of: "water",
    stage: "mix",
    value: 60,
  });
  press(/^All 2 weighed/);
  expect(write).toHaveBeenCalledTimes(3);
  press("Another mass of flour");
  const pad = screen.getByRole("dialog");
  for (const digit of ["9", "9", ".", "5"])
    fireEvent.click(within(pad).getByRole("button", { name: digit }));
  fireEvent.click(within(pad).getByRole("button", { name: "Record" }));
  expect(write).toHaveBeenLastCalledWith(
    "flour weighed",
    expect.objectContaining({ of: "flour", value: 99.5 }),
  );
});

test("a line that was weighed shrinks and cannot be ticked again", () => {
  const batch = run();
  const lines = [line("water", 60, 60.2), line("flour", 100)];
  show(<WeighLines run={{ ...batch, report: { ...batch.report, lines } }} may write={vi.fn()} />);
  expect(screen.getByText("60.20 kg")).toBeTruthy();
  expect(screen.queryByRole("button", { name: "water weighed" })).toBeNull();
});

test("a keypad takes the unit the station is set to and stores the other", () => {
  const enter = vi.fn();
  show(<Keypad title="Dough temperature" unit="°C" signed onClose={vi.fn()} onEnter={enter} />, {
    temperature: "F",
  });
  const pad = within(screen.getByRole("dialog"));
  for (const digit of ["7", "9", ".", "7"])
    fireEvent.click(pad.getByRole("button", { name: digit }));
  expect(pad.getByText("°F")).toBeTruthy();
  fireEvent.click(pad.getByRole("button", { name: "Record" }));
  expect(enter).toHaveBeenCalledWith(26.5);
});

test("a keypad is corrected, signed and typed on", () => {
  const enter = vi.fn();
  show(<Keypad title="Core" unit="°C" signed onClose={vi.fn()} onEnter={enter} />, { mark: "," });
  const pad = within(screen.getByRole("dialog"));
  const key = (name: string) => fireEvent.click(pad.getByRole("button", { name }));
  const record = pad.getByRole<HTMLButtonElement>("button", { name: "Record" });
  expect(record.disabled).toBe(true);
  for (const name of ["1", "8", "Delete", "2", ",", ",", "5", "±"]) key(name);
  expect(pad.getByRole<HTMLInputElement>("textbox").value).toBe("-12,5");
  key("±");
  fireEvent.change(pad.getByRole("textbox"), { target: { value: "13x" } });
  expect(pad.getByRole<HTMLInputElement>("textbox").value).toBe("13");
  fireEvent.submit(pad.getByRole("form"));
  expect(enter).toHaveBeenCalledWith(13);
});

test("an instrument fills the keypad in, and one that is silent leaves it to the thumb", async () => {
  const instrument = { name: "from the probe", read: () => Promise.resolve(26.4) };
  const { unmount } = show(
    <Keypad title="T" unit="°C" instrument={instrument} onClose={vi.fn()} onEnter={vi.fn()} />,
  );
  press("from the probe");
  await waitFor(() => expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("26.4"));
  unmount();
  const silent = { name: "from the probe", read: () => Promise.reject(new Error("no")) };
  show(<Keypad title="T" unit="°C" instrument={silent} onClose={vi.fn()} onEnter={vi.fn()} />);
  press("from the probe");
  await Promise.resolve();
  expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("");
});

test("water is added in kilograms or in points, with what to think of first", () => {
  const write = vi.fn();
  show(<RunActions run={run({ damaged_starch: "it feels dry early" })} write={write} />);
  press("Water added");
  expect(screen.getByText(/Caution: it feels dry early/)).toBeTruthy();
  press("in points on flour");
  const pad = within(screen.getByRole("dialog"));
  for (const digit of ["1", ".", "5"]) fireEvent.click(pad.getByRole("button", { name: digit }));
  fireEvent.click(pad.getByRole("button", { name: "Record" }));
  expect(write).toHaveBeenCalledWith("water added", {
    kind: "addition",
    ingredient: "water",
    kg: 1.5,
    reason: "feel",
    stage: "mix",
  });
});

test("consistency, notes, holds and scrap are two touches away", () => {
  const write = vi.fn();
  show(<RunActions run={run()} write={write} />);
  press("Consistency");
  press("too stiff");
  expect(write).toHaveBeenLastCalledWith("consistency too stiff", {
    kind: "consistency",
    value: 1,
    stage: "mix",
  });
  press("Hold");
  press("oven");
  expect(write).toHaveBeenLastCalledWith("held", { kind: "hold", reason: "oven", stage: "mix" });
  press("Note");
  fireEvent.change(screen.getByRole("textbox"), { target: { value: " the belt slips " } });
  press("Record");
  expect(write).toHaveBeenLastCalledWith("note", {
    kind: "note",
    text: "the belt slips",
    stage: "mix",
  });
  press("Scrap");
  expect(screen.getByText(/Bake it first/)).toBeTruthy();
});

test("what cannot be written of a batch that is over is not offered", () => {
  show(<RunActions run={run({ state: "finished" })} write={vi.fn()} />);
  const names = screen.getAllByRole("button").map((one) => one.textContent);
  expect(names).toEqual(["Reading", "Note"]);
});

test("pieces are counted by the keypad, rejected ones with why", () => {
  const write = vi.fn();
  show(<FinishForm run={run()} write={write} />);
  const finish = screen.getByRole<HTMLButtonElement>("button", { name: "Finish the batch" });
  expect(finish.disabled).toBe(true);
  const count = (name: RegExp, digits: string) => {
    press(name);
    const pad = within(screen.getByRole("dialog"));
    for (const digit of digits) fireEvent.click(pad.getByRole("button", { name: digit }));
    fireEvent.click(pad.getByRole("button", { name: "Set" }));
  };
  count(/^Good pieces/, "190");
  count(/^Rejected pieces/, "10");
  press("torn or open");
  count(/^Mass of all/, "139.2");
  press("Finish the batch");
  expect(write).toHaveBeenCalledWith("finished", {
    kind: "finish",
    pieces_good: 190,
    pieces_rejected: 10,
    mass_kg: 139.2,
    reasons: [{ reason: "torn or open", pieces: 10 }],
  });
});

test("the last thing is undone by one press, and what found no place is set aside", () => {
  const write = vi.fn();
  const batch = run();
  batch.record.placed.push({
    event: "e2",
    kind: "consistency",
    happened_at: iso(-1),
    corrected: false,
    value: -1,
  });
  batch.record.undoable = ["e1", "e2"];
  batch.record.unplaced = [{ event: "e3", why: "the stage was over already" }];
  batch.recorded.push({ event: "e3", who: "Runa Kell", recorded_at: iso(-1), verified: true });
  show(
    <>
      <UndoLast run={batch} write={write} />
      <RunHistory run={batch} stamps={[stamped({ kind: "note", text: "x" })]} may write={write} />
    </>,
  );
  press("Undo: Dough too slack");
  expect(write).toHaveBeenLastCalledWith("undone: Dough too slack", {
    kind: "correct",
    corrects: "e2",
  });
  expect(screen.getByText(/the stage was over already \(Runa Kell\)/)).toBeTruthy();
  press("Set aside");
  expect(write).toHaveBeenLastCalledWith("set aside", { kind: "correct", corrects: "e3" });
});

test("each kind of event is a line that can be read", () => {
  const format = new Format(USUAL);
  const text = (said: Partial<Schemas["Placed"]> & Pick<Schemas["Placed"], "kind">) =>
    eventText(format, STAGES, { event: "x", happened_at: iso(0), corrected: false, ...said });
  expect(text({ kind: "start" })).toBe("Started");
  expect(text({ kind: "stage_end", stage: "mix" })).toBe("Mixing ended");
  expect(text({ kind: "reading", quantity: "dough_c", value: 26.5 })).toBe(
    "Dough temperature 26.5 °C",
  );
  expect(text({ kind: "reading", quantity: "jar_rise_pct", value: 13 })).toBe(
    "Sample jar rise 13 %",
  );
  expect(text({ kind: "reading", quantity: "mass_kg", of: "salt", value: 1.73 })).toBe(
    "salt 1.730 kg",
  );
  expect(text({ kind: "addition", ingredient: "water", kg: 0.5, reason: "feel" })).toBe(
    "500 g water added by feel",
  );
  expect(text({ kind: "observation", name: "sponge_tap", value: 2 })).toBe("sponge tap 2");
  expect(text({ kind: "hold", reason: "oven" })).toBe("Held: oven");
  expect(text({ kind: "note", text: "the belt slips" })).toBe("the belt slips");
});

test("stages stand as planned and as they are, late ones told", () => {
  const batch = run({
    report: {
      ...run().report,
      times: [{ ...time(0, -15, -1), beyond_limit: true }, time(1, -1)],
    },
  });
  batch.record.stages = [
    { stage: "mix", begun_at: null, ended_at: iso(-1), ended_by: "clears_bowl" },
  ];
  show(<RunStages run={batch} />);
  const row = screen.getByRole("row", { name: /^Mixing/ });
  expect(row.textContent).toContain("by clears the bowl beyond its limit");
  expect(row.textContent).toContain("+4 min");
});

test("what it came to stands against the plan, once there is something", () => {
  const { container, unmount } = show(<RunReport run={run()} />);
  expect(container.textContent).toBe("");
  unmount();
  const batch = run();
  batch.report.dough_c = { planned: 27, actual: 28.2, difference: 1.2 };
  batch.report.water = {
    planned_kg: 60,
    weighed_kg: 60,
    added_kg: 0.5,
    by_feel_kg: 0.5,
    over_plan_pts: 0.5,
    by_feel_pts: 0.5,
    complete: true,
  };
  show(<RunReport run={batch} />);
  expect(screen.getByText(/28\.2 °C, \+1\.2 °C/)).toBeTruthy();
  expect(screen.getByText(/60\.5 kg, \+0\.50 points/)).toBeTruthy();
});

test("the board of the demo plant says what is next, and where each batch is", async () => {
  open(<BoardPage />, { at: "/board" });
  expect(await screen.findByText(/^Next on/, {})).toBeTruthy();
  for (const line of ["Line 1", "Line 2", "Bench"]) {
    expect(screen.getByRole("region", { name: line })).toBeTruthy();
  }
  expect(screen.getByRole("link", { name: /^Deck Roll 60, held/ })).toBeTruthy();
  expect(screen.getByRole("link", { name: /^Ebb Flats 240, running/ })).toBeTruthy();
  const table = screen.getByRole("table");
  expect(within(table).getAllByRole("row").length).toBeGreaterThan(6);
});
