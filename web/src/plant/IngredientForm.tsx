import { type Schemas } from "../api/client";
import { AllergensOf } from "./AllergensOf";
import { FieldText } from "../form/FieldText";
import { Signed } from "../form/Signed";
import { useKept } from "../storage/useKept";
import { NumberField } from "../form/NumberField";
import { useSaveParameters } from "./useSaveParameters";
import { optionsOf, Select } from "../form/Select";
import { Form } from "../form/Form";

export const ROLES: Record<Schemas["Role"], string> = {
  flour: "flour",
  liquid: "liquid",
  yeast: "yeast",
  salt: "salt",
  sweet: "sweet",
  fat: "fat",
  protein: "protein",
  fibre: "fibre",
  acid: "acid",
  improver: "improver",
  other: "other",
};

const KEPT: Record<Schemas["Storage"], string> = {
  room: "the room",
  refrigerator: "the refrigerator",
  freezer: "the freezer",
};

interface Typing {
  is: Schemas["IngredientPropertiesInput"];
  reason: string;
}

/** What is known of an ingredient, as somebody would type it. */
const facts = (of: Schemas["IngredientProperties"]): Schemas["IngredientPropertiesInput"] => ({
  ingredient: of.ingredient,
  label: of.label,
  role: of.role,
  water_pct: of.water_pct,
  specific_heat: of.specific_heat,
  kept: of.kept ?? "room",
  allergens: of.allergens ?? null,
  ...(of.price_per_kg != null && { price_per_kg: of.price_per_kg }),
  ...(of.effect && {
    points: of.effect.points.typical,
    points_low: of.effect.points.low,
    points_high: of.effect.points.high,
  }),
  ...(of.kg_per_l && {
    kg_per_l: of.kg_per_l.typical,
    kg_per_l_low: of.kg_per_l.low,
    kg_per_l_high: of.kg_per_l.high,
  }),
});

/** An ingredient as the plant has it, with the reason. */
export function IngredientForm({
  of,
  onClose,
}: {
  of: Schemas["IngredientProperties"];
  onClose: () => void;
}) {
  const key = `ironpeel.ingredient.${of.ingredient}`;
  const [typing, type, forget] = useKept(key, (kept?: Partial<Typing>) => ({
    is: facts(of),
    reason: "",
    ...kept,
  }));
  const { is, reason } = typing;
  const set = (change: (is: Typing["is"]) => Typing["is"]) =>
    type((now) => ({ is: change(now.is) }));
  const save = useSaveParameters(
    () => {
      forget();
      onClose();
    },
    { key, as: typing },
  );
  type Field = Exclude<keyof typeof is, "ingredient" | "label" | "role" | "kept" | "allergens">;
  const number = (key: Field, label: string) => (
    <NumberField
      label={label}
      kind="number"
      value={is[key] ?? null}
      onSet={(value) =>
        set((now) => {
          const next = { ...now };
          if (value === null) delete next[key];
          else next[key] = value;
          return next;
        })
      }
      field={`ingredients[0].${key}`}
    />
  );
  return (
    <Form
      className="mt-2"
      error={save.error}
      onSubmit={() => save.mutate({ ingredients: [is], reason })}
    >
      <div className="grid grid-cols-3 gap-4">
        <FieldText
          label="Name"
          value={is.label ?? ""}
          onChange={(label) => set((now) => ({ ...now, label }))}
          field="ingredients[0].label"
        />
        <Select
          label="Role"
          value={is.role}
          options={optionsOf(ROLES)}
          onSet={(role) => set((now) => ({ ...now, role }))}
        />
        <Select
          label="Kept in"
          value={is.kept ?? "room"}
          options={optionsOf(KEPT)}
          onSet={(kept) => set((now) => ({ ...now, kept }))}
        />
      </div>
      <div className="mt-2 grid grid-cols-3 gap-4">
        {number("water_pct", "Water in it, %")}
        {number("specific_heat", "Specific heat, kJ/kg·K")}
        {number("price_per_kg", "Price of a kilo")}
        {number("points_low", "Points for 1 %, low")}
        {number("points", "Points of water for 1 %")}
        {number("points_high", "Points for 1 %, high")}
        {number("kg_per_l_low", "A litre weighs, low")}
        {number("kg_per_l", "A litre weighs, kg")}
        {number("kg_per_l_high", "A litre weighs, high")}
      </div>
      <AllergensOf
        stated={is.allergens ?? null}
        onSet={(allergens) => set((now) => ({ ...now, allergens }))}
      />
      <Signed
        label="Reason for the plant value"
        reason={reason}
        onReason={(reason) => type({ reason })}
      />
      <p className="mt-4 flex gap-3">
        <button type="submit" className="act act-main" disabled={save.isPending}>
          Save plant value
        </button>
        {of.origin === "plant" && of.label !== "" && (
          <button
            type="button"
            className="act"
            disabled={save.isPending}
            onClick={() =>
              save.mutate({
                ingredients_back: [of.ingredient],
                reason: reason || "reset to default",
              })
            }
          >
            {of.ingredient.startsWith("own_") ? "Remove from the library" : "Reset to default"}
          </button>
        )}
      </p>
    </Form>
  );
}
