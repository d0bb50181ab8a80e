import { numberOf } from "../scenario/scenario";
import { joined, parted, type InAddress } from "../scenario/useAddressed";

/** A lot on the bench, as it is set. */
export interface BlendLot {
  lotId: string;
  share: number;
  /** Of a tonne; none where it is not known. */
  price: number | null;
}

export interface BlendDraft {
  lots: BlendLot[];
  targets: Record<string, { min: string; max: string }>;
}

export const BENCH_KEY = "ironpeel.blend";

/** In the address: each lot with its share and price, each target with its limits as typed. */
export const BLEND_IN_ADDRESS: InAddress<BlendDraft> = {
  read: (search) => {
    const mix = search.get("mix");
    if (mix === null) return undefined;
    const targets = parted(search.get("want")).map((text) => {
      const [property = "", min = "", max = ""] = text.split(":");
      return [property, { min, max }] as const;
    });
    return {
      lots: parted(mix).map((text) => {
        const [lotId = "", share, price] = text.split(":");
        return { lotId, share: numberOf(share) ?? 0, price: numberOf(price) };
      }),
      targets: Object.fromEntries(targets),
    };
  },
  write: ({ lots, targets }) => ({
    mix: joined(lots.map(({ lotId, share, price }) => `${lotId}:${share}:${price ?? ""}`)),
    want:
      joined(
        Object.entries(targets)
          .filter(([, { min, max }]) => min || max)
          .map(([property, { min, max }]) => `${property}:${min}:${max}`),
      ) || null,
  }),
};

export const beginBlend = (kept?: Partial<BlendDraft>): BlendDraft => ({
  lots: [],
  targets: {},
  ...kept,
});
