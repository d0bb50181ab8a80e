import type { Schemas } from "../api/client";

export type AmountBy = Schemas["AmountInput"]["by"];

interface Amount {
  by: AmountBy;
  value: number;
}

/** The dough in hand, as it stands in the address. */
export interface Hand {
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

export function readHand(search: URLSearchParams): Hand {
  const number = (key: string) => {
    const text = search.get(key);
    return text === null || text === "" || Number.isNaN(Number(text)) ? null : Number(text);
  };
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
    cold: (search.get("cold") ?? "").split(",").flatMap((one): Hand["cold"] => {
      const [ingredient, celsius] = one.split(":");
      return ingredient && celsius && !Number.isNaN(Number(celsius))
        ? [[ingredient, Number(celsius)]]
        : [];
    }),
  };
}

export function writeHand(hand: Hand): URLSearchParams {
  const search = new URLSearchParams();
  if (hand.product) search.set("product", hand.product);
  if (hand.lot) search.set("lot", hand.lot);
  if (hand.others.length > 0) search.set("with", hand.others.join("."));
  if (hand.amount) search.set(IN_ADDRESS[hand.amount.by], String(hand.amount.value));
  for (const key of NUMBERS) {
    const value = hand[key];
    if (value !== null) search.set(key, String(value));
  }
  if (hand.jacket) search.set("jacket", "on");
  if (hand.cold.length > 0) search.set("cold", hand.cold.map((one) => one.join(":")).join(","));
  return search;
}

/** The hand as it stands in an address, and what a page keeps beside it in this one. */
export function carried(hand: Hand, address: string): URLSearchParams {
  const search = writeHand(hand);
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
export function handInput(
  hand: Hand,
  product: Schemas["ProductView"],
  lot: Schemas["LotView"],
  others: Schemas["LotView"][],
  { draft, method }: { draft?: Schemas["EditedFormula"]; method?: Schemas["MethodDraft"] },
): Schemas["HandInput"] | null {
  const specification = lot.certificate.specification;
  if (!specification) return null;
  return {
    pins: {
      lot_revision_id: lot.revision.id,
      specification_revision_id: specification.id,
      formula_revision_id: product.formula.revision.id,
      method_revision_id: product.method.revision.id,
      line_revision_id: product.line.revision.id,
      numbers_revision_id: product.numbers?.id,
      other_lots: others.flatMap(({ revision, certificate }) =>
        certificate.specification
          ? {
              lot_revision_id: revision.id,
              specification_revision_id: certificate.specification.id,
            }
          : [],
      ),
    },
    knobs: knobsOf(hand, batchOf(product, draft)),
    draft,
    method,
  };
}

/** The usual batch of a product, edited or as recorded. */
export const batchOf = (product: Schemas["ProductView"], draft?: Schemas["EditedFormula"]) =>
  draft ? draft.batch_kg : product.formula.batch_kg;

/** What is wanted where nobody says: the formula's usual batch, or one full mixer. */
export const usualAmount = (batch_kg: number | null | undefined): Amount =>
  batch_kg == null ? { by: "mixer", value: 1 } : { by: "dough", value: batch_kg };

/** What is set of a dough, as the server takes it. */
export function knobsOf(
  hand: Hand,
  batch_kg: number | null | undefined,
): Schemas["HandInput"]["knobs"] {
  const { by, value } = hand.amount ?? usualAmount(batch_kg);
  return {
    amount: {
      by,
      [AMOUNTS[by]]: value,
      ...(by === "baked" && hand.cooled !== null && { cooled_kg: hand.cooled }),
    } as Schemas["AmountInput"],
    division_kg: hand.division ?? undefined,
    hydration_pct: hand.water ?? undefined,
    target_c: hand.target ?? undefined,
    flour_c: hand.flour ?? undefined,
    room_c: hand.room ?? undefined,
    tap_c: hand.tap ?? undefined,
    jacket: hand.jacket,
    rate: hand.rate ?? undefined,
    ...(hand.cold.length > 0 && {
      ingredients: hand.cold.map(([ingredient, temperature_c]) => ({ ingredient, temperature_c })),
    }),
  };
}
