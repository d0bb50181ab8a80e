import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { ScenarioProvider } from "../src/scenario/ScenarioProvider";
import { expect, test } from "vitest";
import { useState } from "react";
import { Refused, type Schemas } from "../src/api/client";
import { BatchList } from "../src/start/BatchList";
import { LotList } from "../src/start/LotList";
import { ChainBar } from "../src/shell/ChainBar";
import { FieldText } from "../src/form/FieldText";
import { Form } from "../src/form/Form";
import { Finder } from "../src/shell/Finder";
import { ChangeSummary } from "../src/shell/ChangeSummary";
import { PreferencesDialog } from "../src/shell/PreferencesDialog";
import { Refusal } from "../src/form/Refusal";
import { Shortcuts } from "../src/shell/Shortcuts";
import { Tabs } from "../src/shell/Tabs";
import { GLOSSARY } from "../src/shell/glossary";
import { GlossaryTerm } from "../src/shell/GlossaryTerm";
import { useScenarioContext } from "../src/shell/useScenarioContext";
import { useScenario } from "../src/scenario/ScenarioProvider";
import { Derivation } from "../src/shell/Derivation";
import { PreferencesProvider } from "../src/units/preferences";
import { computed, inHand, open, place } from "./page";

const problem = (errors?: { field: string; message: string }[]) =>
  new Refused({ status: 422, title: "no", detail: "it cannot be used", ...(errors && { errors }) });

test("a refusal is told in the server's words, or that nobody answers", () => {
  const { rerender } = render(<Refusal error={null} />);
  expect(screen.queryByRole("alert")).toBeNull();
  rerender(<Refusal error={problem()} />);
  expect(screen.getByRole("alert").textContent).toBe("it cannot be used.");
  const two = problem([
    { field: "a", message: "one" },
    { field: "b", message: "two" },
  ]);
  rerender(<Refusal error={two} />);
  expect(screen.getByRole("alert").textContent).toBe("one. two.");
  rerender(<Refusal error={two} placed={(field) => field === "a"} />);
  expect(screen.getByRole("alert").textContent, "what stands at its field is not said twice").toBe(
    "two.",
  );
  rerender(<Refusal error={two} placed={() => true} />);
  expect(screen.queryByRole("alert")).toBeNull();
  rerender(<Refusal error={new TypeError("failed to fetch")} />);
  expect(screen.getByRole("alert").textContent).toContain("The server does not answer");
  expect(problem([{ field: "kg", message: "too much" }]).at("kg")).toBe("too much");
  expect(problem().at("kg")).toBeUndefined();
});

test("what is refused of a form stands at its field, and only what has none after them all", () => {
  const filled = (error: unknown, withWhy: boolean) => (
    <Form error={error} onSubmit={() => {}}>
      <FieldText label="Name" value="" onChange={() => {}} field={["name", "slug"]} />
      {withWhy && <FieldText label="Why" value="" onChange={() => {}} field="signed.reason" />}
    </Form>
  );
  const two = problem([
    { field: "slug", message: "taken" },
    { field: "signed.reason", message: "why is it made?" },
  ]);
  const { rerender } = render(filled(null, true));
  rerender(filled(two, true));
  expect(screen.getByLabelText("Name").getAttribute("aria-invalid")).toBe("true");
  expect(screen.getByText("taken")).toBeTruthy();
  expect(screen.getByText("why is it made?")).toBeTruthy();
  expect(screen.queryByRole("alert"), "nothing is said twice").toBeNull();
  rerender(filled(null, false));
  rerender(filled(two, false));
  expect(screen.getByRole("alert").textContent).toBe("why is it made?");
});

test("a field's fault belongs to it", async () => {
  function Held() {
    const [value, set] = useState("");
    return (
      <FieldText label="Why" value={value} onChange={set} fault={value ? undefined : "why?"} />
    );
  }
  render(<Held />);
  const field = screen.getByLabelText("Why");
  expect(field.getAttribute("aria-invalid")).toBe("true");
  expect(document.getElementById(field.getAttribute("aria-describedby") ?? "")?.textContent).toBe(
    "why?",
  );
  await userEvent.type(field, "cold night");
  expect(field.getAttribute("aria-invalid")).toBeNull();
  expect(screen.queryByText("why?")).toBeNull();
});

test("tabs keep what is in hand", () => {
  render(
    <MemoryRouter initialEntries={["/water/correction-factors?product=deck-roll-60"]}>
      <ScenarioProvider>
        <Tabs
          of="Water"
          tabs={[
            ["Absorption build-up", "/water"],
            ["Correction factors", "/water/correction-factors"],
          ]}
        />
      </ScenarioProvider>
    </MemoryRouter>,
  );
  expect(
    screen.getByRole("link", { name: "Correction factors" }).getAttribute("aria-current"),
  ).toBe("page");
  expect(screen.getByRole("link", { name: "Absorption build-up" }).getAttribute("href")).toBe(
    "/water?product=deck-roll-60",
  );
});

test("a word of the trade explains itself", async () => {
  render(<GlossaryTerm of="windowpane" />);
  await userEvent.click(screen.getByRole("button", { name: "windowpane" }));
  await screen.findByText(/drawn out until light shows through/);
});

test("the glossary explains every term that is asked of it, each once and in order", () => {
  const terms = [...GLOSSARY.keys()];
  expect(terms).toEqual([...new Set(terms)].sort((one, other) => one.localeCompare(other)));
  for (const [term, { definition }] of GLOSSARY) expect(definition, term).toMatch(/^[A-Z].*\.$/);
  const sources = import.meta.glob("../src/**/*.tsx", {
    query: "?raw",
    import: "default",
    eager: true,
  });
  const asked = Object.values(sources).flatMap((text) =>
    [...String(text).matchAll(/GlossaryTerm of="([^"]+)"/g)].map((found) => found[1] ?? ""),
  );
  expect(asked.length).toBeGreaterThan(8);
  expect(asked.filter((term) => !GLOSSARY.has(term))).toEqual([]);
});

const WHY: Schemas["Derivation"] = {
  formula: "a times b",
  inputs: [{ name: "dough", value: 160, unit: "kg" }],
  coefficients: [
    {
      key: "scaling_loss",
      name: "scaling loss",
      value: 0.5,
      low: 0.2,
      high: 1,
      unit: "%",
      origin: "house",
      source: "usual",
    },
    {
      key: "melting_of_ice",
      name: "melting of ice",
      value: 334,
      low: 334,
      high: 334,
      unit: "kJ/kg",
      origin: "physics",
      source: "tables",
    },
  ],
};

test("a figure answers why with inputs, origins and bands", async () => {
  render(
    <PreferencesProvider>
      <Derivation why={WHY} of="one batch">
        160.0 kg
      </Derivation>
    </PreferencesProvider>,
  );
  await userEvent.click(screen.getByRole("button", { name: "Why: one batch" }));
  const house = await screen.findByRole("row", { name: /^scaling loss/ });
  expect(house.textContent).toContain("H · usual");
  expect(house.textContent).toContain("0.2 to 1");
  expect(screen.getByRole("row", { name: /^melting of ice/ }).textContent).not.toContain(" to ");
  expect(screen.getByRole("row", { name: /^dough/ }).textContent).toContain("160.00 kg");
});

test("units, mark and light are chosen and kept", async () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <PreferencesProvider>
        <MemoryRouter>
          <PreferencesDialog open onClose={() => {}} />
        </MemoryRouter>
      </PreferencesProvider>
    </QueryClientProvider>,
  );
  for (const name of ["°F", "lb, oz", "comma 62,3", "one more", "off", "night"])
    await userEvent.click(await screen.findByRole("radio", { name }));
  expect(document.documentElement.dataset.theme).toBe("night");
  expect(JSON.parse(localStorage.getItem("ironpeel.preferences") ?? "{}")).toMatchObject({
    temperature: "F",
    mass: "lb",
    mark: ",",
    more: 1,
    keys: "off",
    theme: "night",
  });
});

test("the sheet of keys names each once", () => {
  render(<Shortcuts open onClose={() => {}} />);
  const sheet = screen.getByRole("dialog");
  for (const key of ["Ctrl Z", "?", "/", "[", "n"])
    expect(within(sheet).getAllByText(key, { exact: false }).length, key).toBeGreaterThan(0);
});

test("the finder finds lots, products, links and actions", async () => {
  const { user } = open(<Finder open onClose={() => {}} />, {
    at: "/here?product=deck-roll-60&lot=a1&mixer=1",
  });
  const field = await screen.findByLabelText("Find a lot, a product, an action");
  await user.type(field, "vr-26-10");
  await screen.findByRole("option", { name: /VR-26-1090/ });
  await user.clear(field);
  await user.type(field, "kesh");
  await screen.findByRole("option", { name: /Kesh Dark/ });
  await user.clear(field);
  await user.type(field, "trials");
  await user.click(await screen.findByRole("option", { name: /Trials/ }));
  expect(place.path).toBe("/dough/trials");
  expect(place.search.get("product")).toBe("deck-roll-60");
});

test("what the finder does not find is said", async () => {
  const { user } = open(<Finder open onClose={() => {}} />, { at: "/here" });
  await user.type(await screen.findByLabelText("Find a lot, a product, an action"), "zzzz");
  await screen.findByText(/No match/);
});

function Bar() {
  return <ChainBar held={useScenarioContext()} />;
}

test("the chain shows each link's figure, and what a lot without moisture stops", async () => {
  open(<Bar />, { at: await inHand("/here", "deck-roll-60", "VR-26-1033") });
  await computed();
  const link = (name: string) => screen.getByRole("link", { name: new RegExp(`^${name}`) });
  expect(link("Flour").textContent).toContain("✕ out");
  expect(link("Water").textContent).toMatch(/62\.6 %.*caution/);
  expect(link("Dough").textContent).toContain("160.0 kg");
  expect(link("Floor").textContent).toContain("Mixing sheet");
  expect(link("Method").getAttribute("href")).toMatch(/^\/method\?product=deck-roll-60&lot=/);
});

test("without a product the chain waits and says for what", () => {
  open(<Bar />, { at: "/here" });
  expect(screen.getByRole("link", { name: /^Water/ }).textContent).toContain(
    "what the flour takes",
  );
});

function Moving() {
  const held = useScenarioContext();
  const { change } = useScenario();
  return (
    <>
      <button type="button" onClick={() => change({ water: 64 })}>
        wetter
      </button>
      <ChangeSummary changes={held.changes} />
    </>
  );
}

test("what moved is told with its reason, and goes back", async () => {
  const { user } = open(<Moving />, { at: await inHand("/here", "deck-roll-60", "VR-26-1090") });
  await computed();
  expect(screen.queryByRole("complementary", { name: "Changes" })).toBeNull();
  await user.click(screen.getByRole("button", { name: "wetter" }));
  const moved = await screen.findByRole("complementary", { name: "Changes" });
  await waitFor(() => expect(moved.textContent).toMatch(/dough absorption \+5\.5\d points/));
  expect(within(moved).getAllByRole("listitem")[0]?.textContent).toMatch(/override/);
  await user.click(within(moved).getByRole("button", { name: /^Undo/ }));
  await waitFor(() => expect(place.search.get("water")).toBeNull());
});

test("lots come newest first with what was decided of them", async () => {
  open(<LotList />, { at: "/here" });
  const link = await screen.findByRole("link", { name: "VR-26-1033" });
  expect(link.closest("tr")?.textContent).toMatch(/✕ out.*held/);
  const codes = screen.getAllByRole("link").map((one) => one.textContent);
  expect(codes.indexOf("VR-26-1090")).toBeLessThan(codes.indexOf("VR-26-1033"));
});

test("batches that are planned stand on the first page", async () => {
  open(<BatchList />, { at: "/here" });
  const rows = await screen.findAllByRole("link", { name: "Ferry Tin 800" });
  expect(rows[0]?.closest("tr")?.textContent).toMatch(/Odd Marren/);
});
