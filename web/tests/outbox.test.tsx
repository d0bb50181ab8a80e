import { act, renderHook, waitFor } from "@testing-library/react";
import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type * as Outbox from "../src/api/outbox";
import { Refused } from "../src/api/client";

type HeatSolution = (() => Response | Promise<Response>) | undefined;
let answers: HeatSolution[] = [];
let sent: { path: string; body: unknown }[] = [];
let locks: Map<string, Promise<unknown>>;

/** One tab at a time: what a browser's locks promise, and all that is used of them. */
const fakeLocks = {
  request: (name: string, work: () => Promise<unknown>) => {
    const next = (locks.get(name) ?? Promise.resolve()).then(work);
    locks.set(
      name,
      next.catch(() => undefined),
    );
    return next;
  },
};

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers({ shouldAdvanceTime: true, toFake: ["setTimeout", "clearTimeout", "Date"] });
  answers = [];
  sent = [];
  locks = new Map();
  vi.stubGlobal("indexedDB", new IDBFactory());
  vi.stubGlobal(
    "navigator",
    Object.assign(Object.create(navigator) as object, { locks: fakeLocks }),
  );
  vi.stubGlobal("fetch", async (path: string, init: RequestInit) => {
    sent.push({ path, body: JSON.parse(String(init.body)) });
    const answer = answers.shift();
    if (!answer) throw new Error("nobody answers");
    return answer();
  });
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A tab of its own. */
const tab = async (): Promise<typeof Outbox> => {
  vi.resetModules();
  return import("../src/api/outbox");
};
const message = (status: number, body: unknown) => () => Response.json(body, { status });
const LOT = { path: "/api/v1/lots/1/revisions/2", label: "lot VR-1", body: { code: "VR-1" } };
const BATCH = { path: "/api/v1/batches/9", label: "batch", body: {} };
const later = (ms = 3100) => act(() => vi.advanceTimersByTimeAsync(ms));
const refusal = message(422, { title: "no", status: 422, detail: "the lot needs its code" });

test("what the server has is kept no longer", async () => {
  const { record, useOutbox } = await tab();
  answers.push(message(200, { id: "1" }));
  const { result } = renderHook(() => useOutbox());
  await expect(record(LOT)).resolves.toEqual({ id: "1" });
  expect(sent).toEqual([{ path: LOT.path, body: LOT.body }]);
  await waitFor(() => expect(result.current).toEqual([]));
});

test("what the server refuses stays until it is mended, and is not sent again", async () => {
  const { record, useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  answers.push(refusal);
  const refused = await record({ ...LOT, subject: "lot 1" }).catch((error: unknown) => error);
  expect((refused as Refused).problem.detail).toBe("the lot needs its code");
  await later(10_000);
  expect(sent).toHaveLength(1);
  expect(result.current.map((one) => one.refused?.status)).toEqual([422]);
  answers.push(message(200, {}));
  await record({ ...LOT, path: "/api/v1/lots/1/revisions/3", subject: "lot 1" });
  await waitFor(() => expect(result.current).toEqual([]));
});

test("what was refused can be discarded", async () => {
  const { record, discard, useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  answers.push(refusal);
  await record(LOT).catch(() => undefined);
  await waitFor(() => expect(result.current).toHaveLength(1));
  await act(() => discard(result.current[0]?.at ?? 0));
  expect(result.current).toEqual([]);
});

test("what somebody queued is recorded as theirs, or waits until they are signed in again", async () => {
  const { onSignedOut, record, setSender, useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  const signedOut = vi.fn();
  onSignedOut(signedOut);
  setSender({ person: "runa", records: true });
  answers.push(message(401, { title: "no", status: 401, detail: "sign in first" }));
  const recorded = record(LOT);
  await waitFor(() => expect(signedOut).toHaveBeenCalledOnce());
  setSender({ records: false });
  setSender({ person: "odd", records: true });
  await later(20_000);
  expect([sent.length, result.current.length]).toEqual([1, 1]);
  answers.push(message(200, { id: "1" }));
  setSender({ person: "runa", records: true });
  await expect(recorded).resolves.toEqual({ id: "1" });
});

test("what nobody answered waits and is sent again by itself, ever less often", async () => {
  const { record, useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  const recorded = record(LOT);
  await waitFor(() => expect(result.current.map((one) => one.label)).toEqual(["lot VR-1"]));
  await waitFor(() => expect(sent).toHaveLength(1));
  answers.push(message(503, {}));
  await later();
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(result.current, "a server that cannot now is asked again").toHaveLength(1);
  expect(result.current[0]?.at, "kept in the browser's database").toBeGreaterThan(0);
  answers.push(message(200, { id: "1" }));
  await later();
  expect(sent, "twice as long is waited now").toHaveLength(2);
  await later();
  await expect(recorded).resolves.toEqual({ id: "1" });
});

test("a page closed in mid-send leaves what it sent, and the next sends it again", async () => {
  const first = await tab();
  answers.push(() => new Promise<Response>(() => undefined));
  void first.record(LOT);
  await waitFor(() => expect(sent).toHaveLength(1));
  // Its lock goes with it.
  locks = new Map();
  answers.push(message(200, {}));
  const { useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  await waitFor(() => expect(sent).toHaveLength(2));
  await waitFor(() => expect(result.current).toEqual([]));
  expect(sent.map((one) => one.path)).toEqual([LOT.path, LOT.path]);
});

test("of two tabs one sends, and the other hears of it", async () => {
  const [one, other] = [await tab(), await tab()];
  answers.push(message(200, { id: "1" }), message(200, { id: "9" }));
  const answered = await Promise.all([one.record(LOT), other.record(BATCH)]);
  expect(answered).toEqual([{ id: "1" }, { id: "9" }]);
  expect(sent.map((entry) => entry.path).sort()).toEqual([BATCH.path, LOT.path].sort());
});

test("changed while it was sent, it is sent anew, and after", async () => {
  const { record } = await tab();
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  answers.push(() => held.then(() => Response.json({ first: true })), message(200, { last: true }));
  const first = record({ ...LOT, subject: "lot 1" });
  await waitFor(() => expect(sent).toHaveLength(1));
  const edited = { ...LOT, path: "/api/v1/lots/1/revisions/3", body: { code: "VR-2" } };
  const last = record({ ...edited, subject: "lot 1" });
  release();
  expect(await Promise.all([first, last])).toEqual([{ first: true }, { last: true }]);
});

test("pressed twice, it is recorded once", async () => {
  const { record } = await tab();
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  answers.push(() => held.then(() => Response.json({ id: "1" })));
  const once = record(LOT);
  await waitFor(() => expect(sent).toHaveLength(1));
  const twice = record(LOT);
  release();
  expect(await Promise.all([once, twice])).toEqual([{ id: "1" }, { id: "1" }]);
  expect(sent).toHaveLength(1);
});

test("one that waits holds up what is about the same, and nothing else", async () => {
  const { record } = await tab();
  answers.push(message(503, {}), message(200, { id: "9" }));
  const stuck = record({ ...LOT, subject: "lot 1" });
  const stock = { path: "/api/v1/lots/1/stock/4", label: "stock", body: { place: "silo 4" } };
  const after = record({ ...stock, subject: "lot 1" });
  await expect(record(BATCH)).resolves.toEqual({ id: "9" });
  expect(sent.map((one) => one.path)).toEqual([LOT.path, BATCH.path]);
  answers.push(message(200, { id: "1" }), message(200, { id: "4" }));
  await later();
  expect(await Promise.all([stuck, after])).toEqual([{ id: "1" }, { id: "4" }]);
});

test("a browser without room sends all the same, and waits for the answer", async () => {
  const { record, useOutbox } = await tab();
  vi.stubGlobal("indexedDB", {
    open: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
  });
  const { result } = renderHook(() => useOutbox());
  answers.push(message(503, {}), message(200, { id: "1" }));
  const recorded = record(LOT);
  await waitFor(() => expect(result.current).toHaveLength(1));
  await later();
  await expect(recorded).resolves.toEqual({ id: "1" });
});

test("a curve of sixteen megabytes waits like anything else", async () => {
  const { record, useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  const body = { fu: "5".repeat(16 << 20) };
  answers.push(message(503, {}), message(200, { id: "1" }));
  const recorded = record({ path: "/api/v1/lots/1/curves/2", label: "curve", body });
  await waitFor(() => expect(result.current).toHaveLength(1));
  await waitFor(() => expect(sent).toHaveLength(1));
  await later();
  await expect(recorded).resolves.toEqual({ id: "1" });
  expect(sent[1]?.body).toEqual(body);
});

test("what was typed is let go once it is recorded, unless it was changed since", async () => {
  const { record } = await tab();
  localStorage.setItem("typed", JSON.stringify({ code: "VR-1" }));
  answers.push(message(200, {}), message(200, {}));
  await record({ ...LOT, draft: { key: "typed", as: { code: "VR-0" } } });
  expect(localStorage.getItem("typed")).not.toBeNull();
  await record({ ...LOT, draft: { key: "typed", as: { code: "VR-1" } } });
  expect(localStorage.getItem("typed")).toBeNull();
});

test("what an earlier version kept is taken over", async () => {
  localStorage.setItem("ironpeel.outbox", JSON.stringify([LOT]));
  answers.push(message(200, {}));
  const { useOutbox } = await tab();
  const { result } = renderHook(() => useOutbox());
  await waitFor(() => expect(sent).toEqual([{ path: LOT.path, body: LOT.body }]));
  await waitFor(() => expect(result.current).toEqual([]));
});
