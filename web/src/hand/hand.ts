import type { Schemas } from "../api/client";

/** The dough in hand, as it stands in the address. */
export interface Hand {
  product: string | null;
  lot: string | null;
  amount: { by: "pieces" | "dough" | "mixer"; value: number };
  division: number | null;
  water: number | null;
  target: number | null;
  flour: number | null;
  room: number | null;
  tap: number | null;
}

export const AMOUNTS = { pieces: "pieces", dough: "kg", mixer: "doughs" } as const;
const NUMBERS = ["division", "water", "target", "flour", "room", "tap"] as const;

export function readHand(search: URLSearchParams): Hand {
  const number = (key: string) => {
    const text = search.get(key);
    return text === null || text === "" || Number.isNaN(Number(text)) ? null : Number(text);
  };
  const by = (["pieces", "dough"] as const).find((key) => number(key) !== null) ?? "mixer";
  return {
    product: search.get("product"),
    lot: search.get("lot"),
    amount: { by, value: number(by) ?? 1 },
    division: number("division"),
    water: number("water"),
    target: number("target"),
    flour: number("flour"),
    room: number("room"),
    tap: number("tap"),
  };
}

export function writeHand(hand: Hand): URLSearchParams {
  const search = new URLSearchParams();
  if (hand.product) search.set("product", hand.product);
  if (hand.lot) search.set("lot", hand.lot);
  if (hand.product) search.set(hand.amount.by, String(hand.amount.value));
  for (const key of NUMBERS) {
    const value = hand[key];
    if (value !== null) search.set(key, String(value));
  }
  return search;
}

/** The hand as the server takes it. */
export function handInput(
  hand: Hand,
  product: Schemas["ProductView"],
  lot: Schemas["LotView"],
  lines: Schemas["LineInput"][] | undefined,
): Schemas["HandInput"] | null {
  const specification = lot.certificate.specification;
  if (!specification) return null;
  const { by, value } = hand.amount;
  return {
    pins: {
      lot_revision_id: lot.revision.id,
      specification_revision_id: specification.id,
      formula_revision_id: product.formula.revision.id,
      method_revision_id: product.method.revision.id,
      line_revision_id: product.line.revision.id,
    },
    knobs: {
      amount: { by, [AMOUNTS[by]]: value } as Schemas["AmountInput"],
      division_kg: hand.division ?? undefined,
      hydration_pct: hand.water ?? undefined,
      target_c: hand.target ?? undefined,
      flour_c: hand.flour ?? undefined,
      room_c: hand.room ?? undefined,
      tap_c: hand.tap ?? undefined,
    },
    lines,
  };
}
