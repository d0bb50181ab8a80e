import type { Schemas } from "../api/client";

export type AmountBy = Schemas["AmountInput"]["by"];

interface Amount {
  by: AmountBy;
  value: number;
}

/** The selected product, as it stands in the address. */
export interface Scenario {
  product: string | null;
  lot: string | null;
  /** Lots of the formula's other flours. */
  others: string[];
  /** How much is wanted; null is the usual batch. */
  amount: Amount | null;
  /** What a baked piece is to weigh. */
  cooled: number | null;
  division: number | null;
  water: number | null;
  target: number | null;
  flour: number | null;
  room: number | null;
  tap: number | null;
  /** How fast the dough goes beside the model, by tonight's readings. */
  rate: number | null;
  /** The mixer's jacket runs. */
  jacket: boolean;
  /** How cold ingredients are tonight, °C, where that was typed. */
  cold: [ingredient: string, celsius: number][];
}

export const AMOUNTS = {
  pieces: "pieces",
  baked: "pieces",
  dough: "kg",
  flour: "kg",
  mixer: "doughs",
} as const satisfies Record<AmountBy, string>;
/** How an amount stands in the address; `flour` there is a temperature. */
const IN_ADDRESS = {
  pieces: "pieces",
  baked: "baked",
  dough: "dough",
  flour: "from",
  mixer: "mixer",
} as const satisfies Record<AmountBy, string>;
const NUMBERS = ["cooled", "division", "water", "target", "flour", "room", "tap", "rate"] as const;

/** The number an address holds; none where it holds none, or what is no number. */
export const numberOf = (text: string | null | undefined): number | null =>
  text && Number.isFinite(Number(text)) ? Number(text) : null;

export function readScenario(search: URLSearchParams): Scenario {
  const number = (key: string) => numberOf(search.get(key));
  const by = (["pieces", "baked", "dough", "flour", "mixer"] as const).find(
    (key) => number(IN_ADDRESS[key]) !== null,
  );
  return {
    product: search.get("product"),
    lot: search.get("lot"),
    others: search.get("with")?.split(".") ?? [],
    amount: by ? { by, value: number(IN_ADDRESS[by]) ?? 1 } : null,
    cooled: number("cooled"),
    division: number("division"),
    water: number("water"),
    target: number("target"),
    flour: number("flour"),
    room: number("room"),
    tap: number("tap"),
    rate: number("rate"),
    jacket: search.get("jacket") === "on",
    cold: (search.get("cold") ?? "").split(",").flatMap((one): Scenario["cold"] => {
      const [ingredient, celsius] = one.split(":");
      const read = numberOf(celsius);
      return ingredient && read !== null ? [[ingredient, read]] : [];
    }),
  };
}

export function writeScenario(scenario: Scenario): URLSearchParams {
  const search = new URLSearchParams();
  if (scenario.product) search.set("product", scenario.product);
  if (scenario.lot) search.set("lot", scenario.lot);
  if (scenario.others.length > 0) search.set("with", scenario.others.join("."));
  if (scenario.amount) search.set(IN_ADDRESS[scenario.amount.by], String(scenario.amount.value));
  for (const key of NUMBERS) {
    const value = scenario[key];
    if (value !== null) search.set(key, String(value));
  }
  if (scenario.jacket) search.set("jacket", "on");
  if (scenario.cold.length > 0)
    search.set("cold", scenario.cold.map((one) => one.join(":")).join(","));
  return search;
}

/** The hand as it stands in an address, and what a page keeps beside it in this one. */
export function carried(scenario: Scenario, address: string): URLSearchParams {
  const search = writeScenario(scenario);
  const ours = [
    "product",
    "lot",
    "with",
    "jacket",
    "cold",
    ...NUMBERS,
    ...Object.values(IN_ADDRESS),
  ];
  for (const [key, value] of new URLSearchParams(address)) {
    if (!ours.includes(key)) search.append(key, value);
  }
  return search;
}

/** The hand as the server takes it. */
export function scenarioInput(
  scenario: Scenario,
  product: Schemas["ProductView"],
  lot: Schemas["LotView"],
  others: Schemas["LotView"][],
  { draft, method }: { draft?: Schemas["EditedFormula"]; method?: Schemas["MethodDraft"] },
): Schemas["ScenarioInput"] {
  return {
    revision_refs: {
      lot_revision_id: lot.revision.id,
      specification_revision_id: lot.certificate.specification?.id,
      formula_revision_id: product.formula.revision.id,
      method_revision_id: product.method.revision.id,
      line_revision_id: product.line.revision.id,
      parameters_revision_id: product.parameters?.id,
      water_correction_id: product.water_correction?.id,
      other_lots: others.map(({ revision, certificate }) => ({
        lot_revision_id: revision.id,
        specification_revision_id: certificate.specification?.id,
      })),
    },
    run_settings: runSettingsOf(scenario),
    draft,
    method,
  };
}

/** What is set of a dough, as the server takes it. */
export function runSettingsOf(scenario: Scenario): Schemas["ScenarioInput"]["run_settings"] {
  return {
    amount: amountOf(scenario),
    division_kg: scenario.division ?? undefined,
    hydration_pct: scenario.water ?? undefined,
    target_c: scenario.target ?? undefined,
    flour_c: scenario.flour ?? undefined,
    room_c: scenario.room ?? undefined,
    tap_c: scenario.tap ?? undefined,
    jacket: scenario.jacket,
    rate: scenario.rate ?? undefined,
    ...(scenario.cold.length > 0 && {
      ingredients: scenario.cold.map(([ingredient, temperature_c]) => ({
        ingredient,
        temperature_c,
      })),
    }),
  };
}

/** How much is wanted, where somebody said. */
function amountOf({ amount, cooled }: Scenario): Schemas["AmountInput"] | undefined {
  return (
    (amount &&
      ({
        by: amount.by,
        [AMOUNTS[amount.by]]: amount.value,
        ...(amount.by === "baked" && cooled !== null && { cooled_kg: cooled }),
      } as Schemas["AmountInput"])) ??
    undefined
  );
}
