import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { readScenario, writeScenario, type Scenario } from "../scenario/scenario";
import { LINKS } from "./links";
import { Modal } from "./Modal";
import { useMay } from "../session/session";
import { useScenario } from "../scenario/ScenarioProvider";
import { lotsNamed, PRODUCTS } from "../scenario/found";

interface Found {
  key: string;
  kind: string;
  name: string;
  more: string;
  go: () => void;
}

/** Finds lots, products, links of the chain and actions by what is typed. */
export function Finder({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [text, setText] = useState("");
  const { search } = useScenario();
  const navigate = useNavigate();
  const administers = useMay("administer");
  const changes = useMay("change");
  const products = useQuery({ ...PRODUCTS, enabled: open }).data;
  const lots = useQuery({
    ...lotsNamed(text),
    enabled: open,
    placeholderData: keepPreviousData,
  }).data;

  const to =
    (pathname: string, change: Partial<Scenario> = {}) =>
    () => {
      const scenario = { ...readScenario(new URLSearchParams(search)), ...change };
      void navigate({ pathname, search: writeScenario(scenario).toString() });
    };
  const matches = (name: string) => name.toLowerCase().includes(text.trim().toLowerCase());
  const found: Found[] = [
    ...(products ?? [])
      .filter((product) => matches(product.name))
      .map((product) => ({
        key: product.slug,
        kind: "product",
        name: product.name,
        more: product.line,
        go: to("/dough", { product: product.slug, lot: null, water: null }),
      })),
    ...(lots ?? []).map((lot) => ({
      key: lot.id,
      kind: "lot",
      name: lot.code,
      more: lot.flour,
      go: to("/flour", { lot: lot.id }),
    })),
    ...LINKS.filter((link) => matches(link.name)).map((link) => ({
      key: link.key,
      kind: "link",
      name: link.name,
      more: "of the chain",
      go: to(link.path),
    })),
    ...[
      { name: "Import certificate", path: "/flour/receive" },
      { name: "Flour from a bag", path: "/flour/bag" },
      { name: "Planned batches", path: "/" },
      { name: "Compare lots: certificate", path: "/flour/compare" },
      { name: "Control chart", path: "/flour/control-chart" },
      { name: "Curves: farinograph, alveograph", path: "/flour/curves" },
      { name: "Specification", path: "/flour/specification" },
      { name: "Blend calculator", path: "/flour/blend" },
      { name: "Flour correction: gluten, malt, sieve", path: "/flour/correction" },
      { name: "Bulk import of lots", path: "/flour/import" },
      { name: "Compare lots: this dough", path: "/water/compare" },
      { name: "Water distribution", path: "/water/distribution" },
      { name: "Grains", path: "/water/grains" },
      { name: "Correction factors", path: "/water/correction-factors" },
      { name: "Absorption model", path: "/water/absorption-model" },
      { name: "Stages: change the method", path: "/method/stages" },
      { name: "Mixer and line: power, troughs, divider, oven", path: "/method/line" },
      { name: "Sponge parameters", path: "/method/sponge" },
      { name: "Straight or sponge", path: "/method/straight-or-sponge" },
      { name: "Starter refreshment", path: "/method/starter" },
      { name: "Schedule: this dough by the clock", path: "/method/schedule" },
      { name: "Production run: batches, line stoppage", path: "/method/production-run" },
      { name: "Fermentation: rise, yeast for the room", path: "/method/fermentation" },
      { name: "Trials", path: "/dough/trials" },
      { name: "Convert a recipe: cups, spoons, grams", path: "/dough/convert" },
      { name: "Revisions and files of the formula", path: "/dough/revisions" },
      { name: "Plant: flours and specifications", path: "/plant/flours" },
      { name: "Plant: products", path: "/plant/products" },
      { name: "Plant: lines and equipment", path: "/plant/lines" },
      { name: "Plant: ingredients", path: "/plant/ingredients" },
      { name: "Plant: coefficients", path: "/plant/coefficients" },
      { name: "Plant: settings, time zone", path: "/plant/settings" },
      ...(administers
        ? [
            { name: "Plant: people and roles", path: "/plant/people" },
            { name: "Plant: keys of machines", path: "/plant/keys" },
          ]
        : []),
      ...(changes || administers
        ? [
            { name: "Plant: stations of the floor", path: "/plant/stations" },
            { name: "Plant: audit trail", path: "/plant/audit" },
          ]
        : []),
      { name: "New product from a template", path: "/dough/new" },
    ]
      .filter((action) => matches(action.name))
      .map((action) => ({
        key: action.path,
        kind: "action",
        name: action.name,
        more: "",
        go: to(action.path),
      })),
  ];

  return (
    <Modal open={open} onClose={onClose} title="Find">
      <Combobox<Found | null>
        immediate
        onChange={(one) => {
          if (!one) return;
          one.go();
          setText("");
          onClose();
        }}
      >
        <ComboboxInput
          autoFocus
          aria-label="Find a lot, a product, an action"
          placeholder="a lot's code, a product, an action"
          className="field mt-3 text-lg"
          autoComplete="off"
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            // The list never closes by itself, so this closes the sheet.
            if (event.key === "Escape") onClose();
          }}
        />
        <ComboboxOptions static modal={false} className="mt-2 max-h-80 overflow-y-auto">
          {found.map((one) => (
            <ComboboxOption
              key={one.kind + one.key}
              value={one}
              className="flex cursor-pointer gap-3 border-t border-hair px-1 py-2 data-focus:bg-faint"
            >
              <span className="w-16 text-sm text-iron">{one.kind}</span>
              <span className="font-semibold">{one.name}</span>
              <span className="text-iron">{one.more}</span>
            </ComboboxOption>
          ))}
        </ComboboxOptions>
      </Combobox>
      {found.length === 0 && (
        <p className="mt-3 text-sm text-iron">
          No match. Lots are found by the start of their code, products by any part of their name.
        </p>
      )}
    </Modal>
  );
}
