import { act, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { useHand, type Draft } from "../src/hand/HandProvider";
import { open, place } from "./page";

const DRAFT: Draft = { lines: [{ ingredient: "flour", pct: 100 }], style_points: 2 };

function Reader() {
  const { draft } = useHand();
  return <p>{draft ? "edited" : "as recorded"}</p>;
}

const AT = "/here?product=gone-roll&lot=a1&mixer=1";

test("a change stands in the address and is undone", async () => {
  open(<Reader />, { at: AT });
  act(() => place.hand.change({ water: 61.5 }));
  expect(place.search.get("water")).toBe("61.5");
  act(() => place.hand.change({ amount: { by: "flour", value: 200 } }));
  expect(place.search.get("from")).toBe("200");
  expect(place.search.get("mixer")).toBeNull();
  expect(place.hand.before?.hand.amount).toEqual({ by: "mixer", value: 1 });
  act(() => place.hand.undo());
  expect(place.search.get("mixer")).toBe("1");
  act(() => place.hand.undo());
  expect(place.search.get("water")).toBeNull();
  act(() => place.hand.undo());
  expect(place.path, "nothing is left to undo").toBe("/here");
});

test("an edited formula is kept in the browser, by product", () => {
  open(<Reader />, { at: AT });
  expect(screen.getByText("as recorded")).toBeTruthy();
  act(() => place.hand.edit(DRAFT));
  expect(screen.getByText("edited")).toBeTruthy();
  expect(JSON.parse(localStorage.getItem("ironpeel.formula-draft.2.gone-roll") ?? "")).toEqual(
    DRAFT,
  );
  act(() => place.hand.change({ product: "other-roll" }));
  expect(screen.getByText("as recorded")).toBeTruthy();
  act(() => place.hand.undo());
  expect(place.hand.draft).toEqual(DRAFT);
  act(() => place.hand.edit(undefined));
  expect(localStorage.getItem("ironpeel.formula-draft.2.gone-roll")).toBeNull();
});

test("what was changed at once is undone at once", () => {
  open(<Reader />, { at: AT });
  act(() => place.hand.set({ water: 70, amount: { by: "dough", value: 12 } }, { draft: DRAFT }));
  expect([place.search.get("water"), place.search.get("dough")]).toEqual(["70", "12"]);
  act(() => place.hand.undo());
  expect(place.hand.draft).toBeUndefined();
  expect([place.search.get("water"), place.search.get("mixer")]).toEqual([null, "1"]);
});

test("what a page keeps in its address outlasts a change of the dough, not of the product", () => {
  open(<Reader />, { at: `${AT}&property=protein` });
  act(() => {
    place.hand.show({ since: "2026-01-01" });
    place.hand.change({ lot: "b2" });
    place.hand.show({ property: "ash" });
    place.hand.edit(DRAFT);
    place.hand.change({ water: 61.5 });
  });
  const shown = () => ["lot", "water", "property", "since"].map((key) => place.search.get(key));
  expect(shown()).toEqual(["b2", "61.5", "ash", "2026-01-01"]);
  act(() => place.hand.undo());
  expect(shown()).toEqual(["b2", null, "ash", "2026-01-01"]);
  act(() => place.hand.change({ product: "other-roll" }));
  expect(place.search.get("property")).toBeNull();
});

test("what changes nothing is nothing to undo", () => {
  open(<Reader />, { at: AT });
  act(() => place.hand.change({ water: null }));
  act(() => place.hand.edit(undefined));
  expect(place.hand.before).toBeUndefined();
});

test("Ctrl Z undoes, but not while something is typed", async () => {
  const { user } = open(
    <>
      <Reader />
      <input aria-label="typed in" />
    </>,
    { at: AT },
  );
  act(() => place.hand.change({ tap: 9 }));
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
  expect(place.hand.hand.others).toEqual(["b2", "c3"]);
  act(() => place.hand.change({ others: ["b2", "d4"] }));
  expect(place.search.get("with")).toBe("b2.d4");
});
