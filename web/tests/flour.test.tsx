import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { CurvesPage } from "../src/curve/CurvesPage";
import { BlendCalculatorPage } from "../src/flour/BlendCalculatorPage";
import { CompareLotsPage } from "../src/flour/CompareLotsPage";
import { ControlChartPage } from "../src/flour/ControlChartPage";
import { FlourPage } from "../src/flour/FlourPage";
import { BulkImportPage } from "../src/flour/BulkImportPage";
import { ReceiveFlourPage } from "../src/flour/ReceiveFlourPage";
import { FlourCorrectionPage } from "../src/flour/FlourCorrectionPage";
import { SpecificationPage } from "../src/flour/SpecificationPage";
import { inHand, open } from "./page";

const CERTIFICATE = [
  "lot;VR-TEST-1",
  "milled;2026-11-05",
  "property;value;unit;basis;method",
  "moisture;14,1;%;as is;ISO 712",
  "protein;130;%;14 %;",
  "loaf joy;3;%;;",
  "W;298;10-4 J;;ISO 27971",
].join("\n");

/** A file chosen in the page's first place for one. */
async function choose(text: string, name = "file.csv") {
  await waitFor(() => expect(document.querySelector("input[type=file]")).not.toBeNull());
  const input = document.querySelector<HTMLInputElement>("input[type=file]");
  if (!input) throw new Error("no place for a file");
  fireEvent.change(input, { target: { files: [new File([text], name, { type: "text/csv" })] } });
}

test("a lot is shown with its verdict, each reading beside its rule", async () => {
  open(<FlourPage />, { at: await inHand("/flour", "deck-roll-60", "VR-26-1033") });
  await screen.findByRole("heading", { name: "VR-26-1033" });
  const main = document.body.textContent ?? "";
  expect(main).toMatch(/damaged starch/);
  expect(main).toMatch(/1\.4 above the maximum of 9\.5/);
  expect(main).toMatch(/DIN 10355/);
  expect(main).toMatch(/550/);
});

test("a lot is changed against another by what explains it", async () => {
  open(<CompareLotsPage />, { at: await inHand("/flour/compare", "deck-roll-60", "VR-26-1033") });
  await waitFor(() => expect(document.body.textContent).toMatch(/damaged starch/));
  await screen.findByRole("img", { name: /Points of water by what explains them/ });
  expect(document.body.textContent).toMatch(/stick/);
});

test("drift finds the stray lot, and opens it", async () => {
  const { user } = open(<ControlChartPage />, {
    at: await inHand("/flour/control-chart", "deck-roll-60", "VR-26-1090"),
  });
  await user.click(await screen.findByLabelText(/^damaged starch/));
  await waitFor(() =>
    expect(document.querySelectorAll("svg circle, svg path").length).toBeGreaterThan(20),
  );
  expect(document.body.textContent).toMatch(/VR-26-1033/);
});

test("a curve is drawn with its readings, each a mark to move", async () => {
  open(<CurvesPage />, { at: await inHand("/flour/curves", "deck-roll-60", "VR-26-1090") });
  await waitFor(() => expect(screen.getAllByRole("slider").length).toBeGreaterThan(2));
  const text = document.body.textContent ?? "";
  for (const word of ["development", "stability", "arrival"]) expect(text).toContain(word);
});

test("a specification is edited in place and refused in words", async () => {
  const { user } = open(<SpecificationPage />, {
    at: await inHand("/flour/specification", "deck-roll-60", "VR-26-1090"),
  });
  const max = await screen.findByLabelText<HTMLInputElement>(
    /damaged starch.*max|max.*damaged starch/i,
  );
  expect(max.value).not.toBe("");
  await user.clear(max);
  await user.type(max, "1");
  await user.click(screen.getByRole("button", { name: /^Save revision/ }));
  await waitFor(() => expect(document.querySelectorAll(".text-stop").length).toBeGreaterThan(0));
});

test("shares on the blend bench move their mixture, each lot's price beside it", async () => {
  const { user } = open(<BlendCalculatorPage />, {
    at: await inHand("/flour/blend", "deck-roll-60", "VR-26-1090"),
  });
  const put = await screen.findByLabelText<HTMLSelectElement>("Add a lot");
  await waitFor(() => expect(put.options.length).toBeGreaterThan(10));
  for (const code of ["VR-26-1090", "VP-26-0435"]) {
    const option = [...put.options].find((one) => one.textContent?.startsWith(code));
    if (option) await user.selectOptions(put, option);
  }
  await waitFor(() => expect(screen.getAllByRole("slider").length).toBe(2));
  expect(screen.getByLabelText(/^Share of VR-26-1090.*%$/)).toBeTruthy();
  await waitFor(() => expect(document.body.textContent).toMatch(/falling number/));
});

test("a flour is mended by mass, and a remedy that ends says where", async () => {
  const { user } = open(<FlourCorrectionPage />, {
    at: await inHand("/flour/correction", "deck-roll-60", "VR-26-1090"),
  });
  const wanted = await screen.findByLabelText<HTMLInputElement>("Protein wanted on 14 %");
  await waitFor(() => expect(document.body.textContent).toMatch(/likely/));
  const section = within(wanted.closest("section") ?? document.body);
  await user.clear(wanted);
  await user.type(wanted, "90{Enter}");
  await section.findByRole("alert");
  await user.clear(wanted);
  await user.type(wanted, "14{Enter}");
  await waitFor(() => expect(section.queryByRole("alert")).toBeNull());
  expect(section.getByText(/100 of flour give/)).toBeTruthy();
});

test("a certificate's good rows stay while each bad one says what is wrong", async () => {
  const { user } = open(<ReceiveFlourPage />, { at: "/flour/receive" });
  await choose(CERTIFICATE);
  await screen.findByText(/protein of 130 cannot be; it is from 0 to 40 %/);
  expect(screen.getByText(/“loaf joy” is not a property we know/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("value, row 4").value).toBe("298");
  expect(screen.getByText(/2 rows to put right or remove/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Save lot" }).disabled).toBe(true);

  const protein = screen.getByLabelText<HTMLInputElement>("value, row 2");
  await user.clear(protein);
  await user.type(protein, "13,0");
  await screen.findByText(/1 row to put right or remove/);
  await user.click(screen.getByRole("button", { name: "Remove row 3, loaf joy" }));
  await waitFor(() => expect(screen.queryByText(/to put right or remove/)).toBeNull());
  await user.click(screen.getByRole("button", { name: "Undo" }));
  await screen.findByText(/1 row to put right or remove/);
});

test("what is typed of a certificate outlives the page, and a file that is none leaves it alone", async () => {
  const { clearDraft } = await import("../src/flour/draft");
  clearDraft();
  const { router } = open(<ReceiveFlourPage />, { at: "/flour/receive" });
  await choose(CERTIFICATE);
  const moisture = () => screen.getByLabelText<HTMLInputElement>("value, row 1").value;
  await waitFor(() => expect(moisture()).toBe("14,1"));
  await router.navigate("/elsewhere");
  await screen.findByText("elsewhere");
  await router.navigate("/flour/receive");
  await waitFor(() => expect(moisture()).toBe("14,1"));
  expect(screen.getByLabelText<HTMLInputElement>("Lot").value).toBe("VR-TEST-1");
  clearDraft();
  await choose("dear miller, please find enclosed");
  await screen.findByText(/no row begins with property and value/);
  expect(screen.queryByLabelText("value, row 1")).toBeNull();
});

test("a mill's table is understood by its headers before anything is taken in", async () => {
  open(<BulkImportPage />, { at: "/flour/import" });
  await choose(
    "Numéro de lot;Humidité %;Protéines % m.s.;Temps de chute (s);Remarque\nBS-T-1;14,2;15,1;290;bon\nBS-T-2;sec;14,9;300;\n",
    "moulin.csv",
  );
  await waitFor(() => expect(document.body.textContent).toMatch(/BS-T-1/));
  const means = () =>
    screen
      .getAllByRole<HTMLSelectElement>("combobox")
      .map((select) => select.selectedOptions[0]?.textContent);
  await waitFor(() => expect(means()).toContain("moisture"));
  const chosen = means();
  expect(chosen).toContain("protein");
  expect(chosen).toContain("falling number");
  expect(document.body.textContent).toMatch(/“sec” is not a number/);
  expect(screen.queryByText(/recorded/), "nothing is taken in yet").toBeNull();
});

test("without a lot in hand the page says how to take one", async () => {
  open(<FlourCorrectionPage />, { at: "/flour/correction" });
  await screen.findByText(/Select a lot first/);
  expect(screen.getByRole("link", { name: "choose one" }).getAttribute("href")).toBe("/");
});
