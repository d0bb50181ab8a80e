import { useState } from "react";
import type { Schemas } from "../api/client";
import { message } from "./AllergensOf";
import { ORIGIN } from "../shell/Derivation";
import { Modal } from "../shell/Modal";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { IngredientForm, ROLES } from "./IngredientForm";
import { PlantTabs } from "./PlantTabs";
import { SearchField, useSearched } from "./SearchField";
import { usePlantParameters } from "./usePlantParameters";

type Ingredient = Schemas["IngredientProperties"];

const columns = (format: Format): Column<Ingredient>[] => {
  const band = ({ typical, low, high }: Schemas["Estimate"]) =>
    `${format.signed(typical, 2)}${low === high ? "" : ` (${format.signed(low, 2)} to ${format.signed(high, 2)})`}`;
  return [
    { head: "ingredient", of: (one) => one.label },
    { head: "role", of: (one) => ROLES[one.role], className: "text-sm text-iron" },
    {
      head: "water in it",
      of: (one) => one.water_pct,
      figures: true,
      show: (one) => format.percent(one.water_pct, 0),
    },
    {
      head: "points of water for 1 %",
      of: (one) => one.effect?.points.typical,
      className: "whitespace-nowrap",
      show: (one) => one.effect && <span title={one.effect.reason}>{band(one.effect.points)}</span>,
    },
    {
      head: "kJ/kg·K",
      of: (one) => one.specific_heat,
      figures: true,
      show: (one) => format.number(one.specific_heat, 2),
    },
    {
      head: "kg a litre",
      of: (one) => one.kg_per_l?.typical,
      figures: true,
      show: (one) => one.kg_per_l && format.number(one.kg_per_l.typical, 2),
    },
    {
      head: "price a kilo",
      of: (one) => one.price_per_kg,
      figures: true,
      show: (one) => one.price_per_kg != null && format.number(one.price_per_kg, 2),
    },
    { head: "allergens", of: (one) => message(one.allergens), className: "text-sm" },
    {
      head: "origin",
      of: (one) => one.origin,
      show: (one) => (
        <abbr title={ORIGIN[one.origin].word} className="no-underline">
          {ORIGIN[one.origin].letter}
        </abbr>
      ),
    },
  ];
};

/** One more of the plant's own, with nothing known of it. */
const fresh = (all: readonly Ingredient[]): Ingredient => ({
  ingredient: `own_${1 + Math.max(0, ...all.map((one) => Number(one.ingredient.replace("own_", "")) || 0))}`,
  label: "",
  role: "other",
  water_pct: 0,
  specific_heat: 1.5,
  kept: "room",
  allergens: null,
  origin: "plant",
});

/** The ingredients a dough may have, each as the plant has it. */
export function IngredientsPage() {
  const all = usePlantParameters()?.ingredients ?? [];
  const format = useFormat();
  const [text] = useSearched();
  const [open, setOpen] = useState<Ingredient | null>(null);
  return (
    <>
      <PlantTabs />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1>Ingredients</h1>
          <p className="text-sm text-iron">
            What 1 % of each does to the dough's water, what it brings, what it costs
          </p>
        </div>
        <button type="button" className="act" onClick={() => setOpen(fresh(all))}>
          Another ingredient
        </button>
      </div>
      <div className="mt-3">
        <SearchField of="ingredients" placeholder="ingredient, role, allergen" />
      </div>
      <DataTable
        caption="The library of ingredients"
        rows={all}
        columns={columns(format)}
        rowKey={(one) => one.ingredient}
        search={text}
        empty="None."
        act={(one) => (
          <button
            type="button"
            className="link text-sm"
            aria-label={`Change ${one.label}`}
            onClick={() => setOpen(one)}
          >
            Change
          </button>
        )}
      />
      <Modal
        open={open !== null}
        onClose={() => setOpen(null)}
        title={open?.label || "Another ingredient"}
      >
        {open && <IngredientForm key={open.ingredient} of={open} onClose={() => setOpen(null)} />}
      </Modal>
    </>
  );
}
