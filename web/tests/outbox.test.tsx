import { act, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type * as Outbox from "../src/api/outbox";
import { Refused } from "../src/api/client";

const answers: (() => Response | Promise<Response>)[] = [];
const sent: { path: string; body: unknown }[] = [];

beforeEach(() => {
  vi.resetModules();
  vi.useFakeTimers({ shouldAdvanceTime: true });
  answers.length = 0;
  sent.length = 0;
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

const load = (): Promise<typeof Outbox> => import("../src/api/outbox");
const says = (status: number, body: unknown) => () => Response.json(body, { status });
const LETTER = { path: "/api/v1/lots/1/revisions/2", label: "lot VR-1", body: { code: "VR-1" } };

test("what the server has is kept no longer", async () => {
  const { record, useOutbox } = await load();
  answers.push(says(200, { id: "1" }));
  const { result } = renderHook(() => useOutbox());
  await expect(record(LETTER)).resolves.toEqual({ id: "1" });
  expect(sent).toEqual([{ path: LETTER.path, body: LETTER.body }]);
  await waitFor(() => expect(result.current).toEqual([]));
  expect(localStorage.getItem("ironpeel.outbox")).toBe("[]");
});

test("what the server refuses is told and not sent again", async () => {
  const { record } = await load();
  const errors = [{ field: "code", message: "the lot needs its code" }];
  answers.push(says(422, { title: "no", status: 422, detail: "no", errors }));
  const refused = await record(LETTER).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(Object);
  expect((refused as Refused).problem.errors).toEqual(errors);
  await act(() => vi.advanceTimersByTimeAsync(10_000));
  expect(sent).toHaveLength(1);
});

test("what nobody answered waits and is sent again by itself", async () => {
  const { record, useOutbox } = await load();
  const { result } = renderHook(() => useOutbox());
  const recorded = record(LETTER);
  await waitFor(() => expect(result.current.map((one) => one.label)).toEqual(["lot VR-1"]));
  answers.push(says(503, {}), says(200, { id: "1" }));
  await act(() => vi.advanceTimersByTimeAsync(3100));
  expect(result.current, "a server that cannot now is asked again").toHaveLength(1);
  await act(() => vi.advanceTimersByTimeAsync(3100));
  await expect(recorded).resolves.toEqual({ id: "1" });
  expect(sent).toHaveLength(3);
});

test("a page opened anew sends what an earlier one kept", async () => {
  localStorage.setItem("ironpeel.outbox", JSON.stringify([LETTER]));
  answers.push(says(200, {}));
  const { useOutbox } = await load();
  const { result } = renderHook(() => useOutbox());
  await waitFor(() => expect(result.current).toEqual([]));
  expect(sent).toEqual([{ path: LETTER.path, body: LETTER.body }]);
});

test("the same thing changed again is sent once, in its last state", async () => {
  const { record } = await load();
  void record(LETTER);
  await act(() => vi.advanceTimersByTimeAsync(10));
  const last = record({ ...LETTER, body: { code: "VR-2" } });
  answers.push(says(200, {}));
  await act(() => vi.advanceTimersByTimeAsync(3100));
  await last;
  expect(sent.at(-1)?.body).toEqual({ code: "VR-2" });
  expect(JSON.parse(localStorage.getItem("ironpeel.outbox") ?? "")).toEqual([]);
});

test("letters go in the order they were written, one after another", async () => {
  const { record } = await load();
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  answers.push(
    async () => {
      await held;
      return Response.json({});
    },
    says(200, {}),
  );
  const first = record(LETTER);
  const second = record({ ...LETTER, path: "/api/v1/batches/9", label: "batch" });
  await act(() => vi.advanceTimersByTimeAsync(50));
  expect(sent).toHaveLength(1);
  release();
  await Promise.all([first, second]);
  expect(sent.map((letter) => letter.path)).toEqual([LETTER.path, "/api/v1/batches/9"]);
});
