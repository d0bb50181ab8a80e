import { act, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Draft } from "../src/scenario/edited";
import { useScenario } from "../src/scenario/ScenarioProvider";
import { open, place } from "./page";

const DRAFT: Draft = { lines: [{ ingredient: "flour", pct: 100 }], style_points: 2 };

function Reader() {
  const { draft } = useScenario();
  return <p>{draft ? "edited" : "as recorded"}</p>;
}

const AT = "/here?product=gone-roll&lot=a1&mixer=1";

test("a change stands in the address and is undone", async () => {
  open(<Reader />, { at: AT });
  act(() => place.scenario.change({ water: 61.5 }));
  expect(place.search.get("water")).toBe("61.5");
  act(() => place.scenario.change({ amount: { by: "flour", value: 200 } }));
  expect(place.search.get("from")).toBe("200");
  expect(place.search.get("mixer")).toBeNull();
  expect(place.scenario.before?.scenario.amount).toEqual({ by: "mixer", value: 1 });
  act(() => place.scenario.undo());
  expect(place.search.get("mixer")).toBe("1");
  act(() => place.scenario.undo());
  expect(place.search.get("water")).toBeNull();
  act(() => place.scenario.undo());
  expect(place.path, "nothing is left to undo").toBe("/here");
});

test("an edited formula is kept in the browser, by product", () => {
  open(<Reader />, { at: AT });
  expect(screen.getByText("as recorded")).toBeTruthy();
  act(() => place.scenario.edit(DRAFT));
  expect(screen.getByText("edited")).toBeTruthy();
  expect(JSON.parse(localStorage.getItem("ironpeel.formula-draft.2.gone-roll") ?? "")).toEqual(
    DRAFT,
  );
  act(() => place.scenario.change({ product: "other-roll" }));
  expect(screen.getByText("as recorded")).toBeTruthy();
  act(() => place.scenario.undo());
  expect(place.scenario.draft).toEqual(DRAFT);
  act(() => place.scenario.edit(undefined));
  expect(localStorage.getItem("ironpeel.formula-draft.2.gone-roll")).toBeNull();
});

test("a method edited under an earlier version is read by the names of today", () => {
  const stage = { kind: "rest", label: "Bulk", minutes: 90 };
  const kept = {
    process: "no_time",
    stages: [{ ...stage, adds: ["salt"], ends_by: "rise", window: { low_min: 60 } }],
  };
  localStorage.setItem("ironpeel.method-draft.gone-roll", JSON.stringify(kept));
  open(<Reader />, { at: AT });
  expect(place.scenario.method).toEqual({
    process: "no_time",
    stages: [
      { ...stage, adds: [{ ingredient: "salt" }], end_point: "rise", tolerance: { low_min: 60 } },
    ],
  });
});

test("what was changed at once is undone at once", () => {
  open(<Reader />, { at: AT });
  act(() =>
    place.scenario.set({ water: 70, amount: { by: "dough", value: 12 } }, { draft: DRAFT }),
  );
  expect([place.search.get("water"), place.search.get("dough")]).toEqual(["70", "12"]);
  act(() => place.scenario.undo());
  expect(place.scenario.draft).toBeUndefined();
  expect([place.search.get("water"), place.search.get("mixer")]).toEqual([null, "1"]);
});

test("what a page keeps in its address outlasts a change of the dough, not of the product", () => {
  open(<Reader />, { at: `${AT}&property=protein` });
  act(() => {
    place.scenario.show({ since: "2026-01-01" });
    place.scenario.change({ lot: "b2" });
    place.scenario.show({ property: "ash" });
    place.scenario.edit(DRAFT);
    place.scenario.change({ water: 61.5 });
  });
  const shown = () => ["lot", "water", "property", "since"].map((key) => place.search.get(key));
  expect(shown()).toEqual(["b2", "61.5", "ash", "2026-01-01"]);
  act(() => place.scenario.undo());
  expect(shown()).toEqual(["b2", null, "ash", "2026-01-01"]);
  act(() => place.scenario.change({ product: "other-roll" }));
  expect(place.search.get("property")).toBeNull();
});

test("what changes nothing is nothing to undo", () => {
  open(<Reader />, { at: AT });
  act(() => place.scenario.change({ water: null }));
  act(() => place.scenario.edit(undefined));
  expect(place.scenario.before).toBeUndefined();
});

test("Ctrl Z undoes, but not while something is typed", async () => {
  const { user } = open(
    <>
      <Reader />
      <input aria-label="typed in" />
    </>,
    { at: AT },
  );
  act(() => place.scenario.change({ tap: 9 }));
  await user.click(screen.getByLabelText("typed in"));
  await user.keyboard("{Control>}z{/Control}");
  expect(place.search.get("tap")).toBe("9");
  await user.tab();
  (document.activeElement as HTMLElement | null)?.blur();
  await user.keyboard("{Control>}z{/Control}");
  expect(place.search.get("tap")).toBeNull();
});

test("lots of other flours stand in the address together", () => {
  open(<Reader />, { at: `${AT}&with=b2.c3` });
  expect(place.scenario.scenario.others).toEqual(["b2", "c3"]);
  act(() => place.scenario.change({ others: ["b2", "d4"] }));
  expect(place.search.get("with")).toBe("b2.d4");
});
